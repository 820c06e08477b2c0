import { defineEndpoints } from '../endpoint.js';
import { questionParams } from '../ids.js';
import { tellingAnswersSchema, tellingQuery } from '../learning/records.js';
import { sampleCreateSchema, sampleDrawnSchema, saturationSchema } from './records.js';

export const samplingEndpoints = defineEndpoints({
  drawSample: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/samples',
    params: questionParams,
    body: sampleCreateSchema,
    reply: sampleDrawnSchema,
    problems: ['nothing_near', 'nothing_telling', 'nothing_to_draw', 'sample_after_suggestions'],
  },
  getTellingAnswers: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/telling',
    params: questionParams,
    query: tellingQuery,
    reply: tellingAnswersSchema,
    problems: [],
  },
  getSaturation: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/saturation',
    params: questionParams,
    reply: saturationSchema,
    problems: [],
  },
});
