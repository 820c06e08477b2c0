import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { questionParams } from '../ids.js';
import {
  contrastQuery,
  contrastSchema,
  lookQuery,
  lookSchema,
  networkFileParams,
  networkQuery,
  networkSchema,
} from './records.js';

export const lookEndpoints = defineEndpoints({
  lookAtQuestion: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look',
    params: questionParams,
    query: lookQuery,
    reply: lookSchema,
    problems: [],
  },
  contrastWords: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/contrast',
    params: questionParams,
    query: contrastQuery,
    reply: contrastSchema,
    problems: [],
  },
  getWordNetwork: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/network',
    params: questionParams,
    query: networkQuery,
    reply: networkSchema,
    problems: [],
  },
  downloadWordNetwork: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/look/network/files/:format',
    params: networkFileParams,
    query: networkQuery,
    reply: z.unknown(),
    produces: ['text/csv', 'application/graphml+xml'],
    problems: [],
  },
});
