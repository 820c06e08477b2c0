import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { studyParams } from '../ids.js';
import { mergeSummarySchema, studyFileQuery } from './records.js';
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
  previewMerge: {
    method: 'POST',
    path: '/api/studies/:study/merges/preview',
    params: studyParams,
    reply: mergeSummarySchema,
    consumes: ['multipart/form-data'],
    problems: [
      'bad_study_file',
      'newer_study_file',
      'reading_under_way',
      'too_large',
      'upload_cut_off',
    ],
  },
  mergeStudyFile: {
    method: 'POST',
    path: '/api/studies/:study/merges',
    params: studyParams,
    reply: mergeSummarySchema,
    consumes: ['multipart/form-data'],
    problems: [
      'bad_study_file',
      'changed_meanwhile',
      'newer_study_file',
      'nothing_to_merge',
      'reading_under_way',
      'too_large',
      'upload_cut_off',
    ],
  },
  openStudyFile: {
    method: 'POST',
    path: '/api/study-copies',
    reply: studySummarySchema,
    problems: ['bad_study_file', 'newer_study_file', 'too_large', 'upload_cut_off'],
  },
});
