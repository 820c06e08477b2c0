import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { historyQuery, historySchema, undoneSchema } from './records.js';
import { studyParams } from '../ids.js';

export const historyEndpoints = defineEndpoints({
  getHistory: {
    method: 'GET',
    path: '/api/studies/:study/history',
    params: studyParams,
    query: historyQuery,
    reply: historySchema,
    problems: [],
  },
  undo: {
    method: 'POST',
    path: '/api/studies/:study/undo',
    access: 'coding',
    params: studyParams,
    reply: undoneSchema,
    problems: ['nothing_to_undo', 'undo_crosses'],
  },
  redo: {
    method: 'POST',
    path: '/api/studies/:study/redo',
    access: 'coding',
    params: studyParams,
    reply: undoneSchema,
    problems: ['nothing_to_redo', 'undo_crosses'],
  },
  followStudies: {
    method: 'GET',
    path: '/api/events',
    reply: z.string(),
    produces: ['text/event-stream'],
    problems: ['too_many_streams'],
  },
});
