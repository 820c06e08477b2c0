import { z } from 'zod';
import { defineEndpoints } from '../endpoint.js';
import {
  answersQuery,
  answersSchema,
  codeHitsSchema,
  codedHitsSchema,
  hitsSchema,
  ledgerQuery,
  ledgerSchema,
  nearCodesSchema,
  otherAnswersSchema,
} from './ledger.js';
import {
  lineEditSchema,
  mentionCreateSchema,
  mentionEditSchema,
  mentionParams,
  responseParams,
  settleSchema,
} from './records.js';
import { doneSchema, flagSchema, questionParams, studyParams } from '../ids.js';
import { respondentParams } from '../respondents/records.js';

export const codingEndpoints = defineEndpoints({
  getLedger: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/ledger',
    params: questionParams,
    query: ledgerQuery,
    reply: ledgerSchema,
    problems: [],
  },
  getAnswers: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/answers',
    params: questionParams,
    query: answersQuery,
    reply: answersSchema,
    problems: [],
  },
  getHits: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/hits',
    params: questionParams,
    query: ledgerQuery,
    reply: hitsSchema,
    problems: [],
  },
  codeHits: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/hits',
    params: questionParams,
    body: codeHitsSchema,
    reply: codedHitsSchema,
    problems: ['changed_meanwhile', 'name_taken', 'passage_outside'],
  },
  getNearCodes: {
    method: 'GET',
    path: '/api/studies/:study/responses/:response/near',
    params: responseParams,
    reply: nearCodesSchema,
    problems: [],
  },
  getRespondentAnswers: {
    method: 'GET',
    path: '/api/studies/:study/respondents/:respondent/answers',
    params: respondentParams,
    reply: otherAnswersSchema,
    problems: [],
  },
  addMention: {
    method: 'POST',
    path: '/api/studies/:study/mentions',
    params: studyParams,
    body: mentionCreateSchema,
    reply: doneSchema,
    problems: [
      'aside_not_coded',
      'changed_meanwhile',
      'name_taken',
      'no_answer_to_code',
      'passage_outside',
    ],
  },
  editMention: {
    method: 'PATCH',
    path: '/api/studies/:study/mentions/:mention',
    params: mentionParams,
    body: mentionEditSchema,
    reply: doneSchema,
    problems: ['aside_not_coded', 'changed_meanwhile', 'no_answer_to_code', 'passage_outside'],
  },
  removeMention: {
    method: 'DELETE',
    path: '/api/studies/:study/mentions/:mention',
    params: mentionParams,
    query: z.object({ toSame: flagSchema.default(false) }),
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  settleResponse: {
    method: 'PUT',
    path: '/api/studies/:study/responses/:response/settlement',
    params: responseParams,
    body: settleSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'no_answer_to_code'],
  },
  editLine: {
    method: 'PUT',
    path: '/api/studies/:study/responses/:response/lines',
    params: responseParams,
    body: lineEditSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'passage_outside'],
  },
});
