import { defineEndpoints } from '../endpoint.js';
import { questionParams } from '../ids.js';
import { lookQuery, lookSchema } from './records.js';

export const lookEndpoints = defineEndpoints({
  lookAtQuestion: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look',
    params: questionParams,
    query: lookQuery,
    reply: lookSchema,
    problems: [],
  },
});
