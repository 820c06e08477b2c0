import { z } from 'zod';
import { codeParams } from '../codebook/records.js';
import { defineEndpoints } from '../endpoint.js';
import { withinQuery } from '../groups/records.js';
import { idSchema, studyParams } from '../ids.js';
import { jobSchema } from '../jobs/records.js';
import { meaningSchema, nearestAnswersSchema } from './records.js';

export const sentencesEndpoints = defineEndpoints({
  getMeaning: {
    method: 'GET',
    path: '/api/studies/:study/meaning',
    params: studyParams,
    reply: meaningSchema,
    problems: [],
  },
  readForMeaning: {
    method: 'POST',
    path: '/api/studies/:study/meaning',
    params: studyParams,
    reply: jobSchema,
    problems: ['job_under_way'],
  },
  getNearestAnswers: {
    method: 'GET',
    path: '/api/studies/:study/codes/:code/nearest',
    params: codeParams,
    query: withinQuery.extend({
      /** Of one question alone. */
      question: idSchema.optional(),
      limit: z.coerce.number().int().min(1).max(50).default(10),
    }),
    reply: nearestAnswersSchema,
    problems: [],
  },
});
