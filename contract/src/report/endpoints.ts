import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { FILE_TYPES, TABLE_FILE_TYPES } from '../fileTypes.js';
import { agreementFileParams, agreementQuery } from '../agreement/records.js';
import { withinQuery } from '../groups/records.js';
import { questionParams } from '../ids.js';
import {
  behindQuery,
  behindSchema,
  reportFileParams,
  reportQuery,
  reportSchema,
  respondentFileParams,
  togetherFileParams,
  togetherQuery,
  togetherSchema,
} from './records.js';

export const reportEndpoints = defineEndpoints({
  getReport: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/report',
    access: 'reading',
    params: questionParams,
    query: reportQuery,
    reply: reportSchema,
    problems: ['no_such_difference', 'too_many_columns'],
  },
  getAnswersBehind: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/report/answers',
    access: 'reading',
    params: questionParams,
    query: behindQuery,
    reply: behindSchema,
    problems: ['too_many_columns'],
  },
  getCodesTogether: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/together',
    access: 'reading',
    params: questionParams,
    query: togetherQuery,
    reply: togetherSchema,
    problems: [],
  },
  downloadTogether: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/together/files/:format',
    access: 'reading',
    params: togetherFileParams,
    query: togetherQuery,
    reply: z.unknown(),
    produces: [FILE_TYPES.csv, FILE_TYPES.xlsx],
    problems: [],
  },
  downloadReport: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/report/files/:format',
    access: 'reading',
    params: reportFileParams,
    query: reportQuery,
    reply: z.unknown(),
    produces: Object.values(TABLE_FILE_TYPES),
    problems: ['no_such_difference', 'too_many_columns'],
  },
  downloadAgreement: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/readings/:reading/files/:format',
    params: agreementFileParams,
    query: agreementQuery,
    reply: z.unknown(),
    produces: [FILE_TYPES.csv, FILE_TYPES.xlsx],
    problems: ['reading_under_way'],
  },
  downloadRespondents: {
    method: 'GET',
    path: '/api/studies/:study/respondents/files/:format',
    params: respondentFileParams,
    query: withinQuery,
    reply: z.unknown(),
    produces: [FILE_TYPES.zip, FILE_TYPES.xlsx],
    problems: [],
  },
});
