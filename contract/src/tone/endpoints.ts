import { z } from 'zod';
import { FILE_TYPES } from '../fileTypes.js';
import { defineEndpoints } from '../endpoint.js';
import { doneSchema, questionParams } from '../ids.js';
import { jobSchema } from '../jobs/records.js';
import {
  toneCheckFields,
  toneCheckParams,
  toneOverviewSchema,
  toneQuery,
  toneReportQuery,
  toneReportSchema,
  toneSampleDrawnSchema,
  toneSampleSchema,
} from './records.js';

export const toneEndpoints = defineEndpoints({
  getTone: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/tone',
    params: questionParams,
    query: toneQuery,
    reply: toneOverviewSchema,
    problems: [],
  },
  checkTone: {
    method: 'PUT',
    path: '/api/studies/:study/questions/:question/tone/checks/:check',
    params: toneCheckParams,
    body: toneCheckFields,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'no_answer_to_code', 'passage_outside'],
  },
  drawToneSample: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/tone/sample',
    params: questionParams,
    body: toneSampleSchema,
    reply: toneSampleDrawnSchema,
    problems: ['nothing_to_draw'],
  },
  trainTone: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/tone/training',
    params: questionParams,
    reply: jobSchema,
    problems: ['job_under_way', 'nothing_settled'],
  },
  getToneReport: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/tone/report',
    access: 'reading',
    params: questionParams,
    query: toneReportQuery,
    reply: toneReportSchema,
    problems: [],
  },
  downloadToneReport: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/tone/report/files/csv',
    access: 'reading',
    params: questionParams,
    query: toneReportQuery,
    reply: z.unknown(),
    produces: [FILE_TYPES.csv],
    problems: [],
  },
});
