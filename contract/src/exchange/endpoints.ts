import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import { CODEBOOK_FILE_TYPES } from '../fileTypes.js';
import {
  codeListSchema,
  codebookFileParams,
  codebookSchema,
  takeCodeListSchema,
} from '../codebook/records.js';
import { studyParams } from '../ids.js';

export const exchangeEndpoints = defineEndpoints({
  downloadCodebook: {
    method: 'GET',
    path: '/api/studies/:study/codebook/files/:format',
    access: 'membership',
    params: codebookFileParams,
    reply: z.unknown(),
    produces: Object.values(CODEBOOK_FILE_TYPES),
    problems: ['empty_codebook'],
  },
  readCodeList: {
    method: 'POST',
    path: '/api/studies/:study/codebook/files',
    params: studyParams,
    reply: codeListSchema,
    consumes: ['multipart/form-data'],
    problems: ['too_large', 'unreadable_sheet'],
  },
  importCodeList: {
    method: 'POST',
    path: '/api/studies/:study/codebook/list',
    params: studyParams,
    body: takeCodeListSchema,
    reply: codebookSchema,
    problems: ['changed_meanwhile'],
  },
});
