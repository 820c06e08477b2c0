import { defineEndpoints } from '../endpoint.js';
import { doneSchema, studyParams } from '../ids.js';
import { noteCreateSchema, noteEditSchema, noteParams, notesSchema } from './records.js';

export const notesEndpoints = defineEndpoints({
  listNotes: {
    method: 'GET',
    path: '/api/studies/:study/notes',
    params: studyParams,
    reply: notesSchema,
    problems: [],
  },
  addNote: {
    method: 'POST',
    path: '/api/studies/:study/notes',
    access: 'coding',
    params: studyParams,
    body: noteCreateSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'passage_outside'],
  },
  editNote: {
    method: 'PATCH',
    path: '/api/studies/:study/notes/:note',
    access: 'coding',
    params: noteParams,
    body: noteEditSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  removeNote: {
    method: 'DELETE',
    path: '/api/studies/:study/notes/:note',
    access: 'coding',
    params: noteParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
});
