import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { studyParams } from '../ids.js';
import { studyFileQuery } from './records.js';
import { studySummarySchema } from '../study/records.js';

export const studyFileEndpoints = defineEndpoints({
  saveStudyFile: {
    method: 'GET',
    path: '/api/studies/:study/copy',
    params: studyParams,
    query: studyFileQuery,
    reply: z.unknown(),
    produces: ['application/zip'],
    problems: ['reading_under_way'],
  },
  openStudyFile: {
    method: 'POST',
    path: '/api/study-copies',
    reply: studySummarySchema,
    problems: ['bad_study_file', 'newer_study_file', 'too_large', 'upload_cut_off'],
  },
});
