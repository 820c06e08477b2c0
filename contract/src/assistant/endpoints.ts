import { responseParams } from '../coding/records.js';
import { defineEndpoints } from '../endpoint.js';
import { doneSchema, studyParams } from '../ids.js';
import {
  answerHelpSchema,
  glossarySchema,
  glossaryTermFields,
  glossaryTermParams,
} from './records.js';

export const assistantEndpoints = defineEndpoints({
  helpWithAnswer: {
    method: 'GET',
    path: '/api/studies/:study/responses/:response/help',
    params: responseParams,
    reply: answerHelpSchema,
    problems: ['no_answer_to_code', 'sample_is_blind'],
  },
  getGlossary: {
    method: 'GET',
    path: '/api/studies/:study/glossary',
    access: 'coding',
    params: studyParams,
    reply: glossarySchema,
    problems: [],
  },
  putGlossaryTerm: {
    method: 'PUT',
    path: '/api/studies/:study/glossary/:term',
    params: glossaryTermParams,
    body: glossaryTermFields,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'name_taken'],
  },
  removeGlossaryTerm: {
    method: 'DELETE',
    path: '/api/studies/:study/glossary/:term',
    params: glossaryTermParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
});
