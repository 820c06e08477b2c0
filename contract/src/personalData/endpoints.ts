import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { FILE_TYPES } from '../fileTypes.js';
import { doneSchema, studyParams } from '../ids.js';
import { privacySchema, respondentDeletedSchema, respondentTracesQuery } from './records.js';

export const personalDataEndpoints = defineEndpoints({
  downloadPersonalData: {
    method: 'GET',
    path: '/api/studies/:study/personal-data',
    access: 'ownership',
    params: studyParams,
    query: respondentTracesQuery,
    reply: z.unknown(),
    produces: [FILE_TYPES.json],
    problems: [],
  },
  deleteRespondent: {
    method: 'POST',
    path: '/api/studies/:study/personal-data/deletion',
    access: 'ownership',
    params: studyParams,
    body: respondentTracesQuery,
    reply: respondentDeletedSchema,
    problems: ['job_under_way'],
  },
  changePrivacy: {
    method: 'PUT',
    path: '/api/studies/:study/privacy',
    access: 'ownership',
    params: studyParams,
    body: privacySchema,
    reply: doneSchema,
    problems: [],
  },
});
