import { defineEndpoints } from '../endpoint.js';
import { withinQuery } from '../groups/records.js';
import { doneSchema, questionParams, studyParams } from '../ids.js';
import {
  noAnswerListSchema,
  noAnswerResultSchema,
  questionChangeSchema,
  questionOrderSchema,
  studyChangeSchema,
} from '../respondents/records.js';
import {
  membershipChangeSchema,
  membershipSchema,
  studyArchiveSchema,
  studyCreateSchema,
  studyDeleteSchema,
  studyDetailSchema,
  studyListSchema,
  studySummarySchema,
} from './records.js';

export const studyEndpoints = defineEndpoints({
  changeStudy: {
    method: 'PATCH',
    path: '/api/studies/:study',
    params: studyParams,
    body: studyChangeSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  changeNoAnswers: {
    method: 'PUT',
    path: '/api/studies/:study/no-answers',
    params: studyParams,
    body: noAnswerListSchema,
    reply: noAnswerResultSchema,
    problems: [],
  },
  changeQuestion: {
    method: 'PATCH',
    path: '/api/studies/:study/questions/:question',
    params: questionParams,
    body: questionChangeSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile', 'name_taken'],
  },
  orderQuestions: {
    method: 'PUT',
    path: '/api/studies/:study/question-order',
    params: studyParams,
    body: questionOrderSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  listStudies: {
    method: 'GET',
    path: '/api/studies',
    reply: studyListSchema,
    problems: [],
  },
  createStudy: {
    method: 'POST',
    path: '/api/studies',
    body: studyCreateSchema,
    reply: studySummarySchema,
    problems: [],
  },
  getStudy: {
    method: 'GET',
    path: '/api/studies/:study',
    params: studyParams,
    query: withinQuery,
    reply: studyDetailSchema,
    problems: [],
  },
  archiveStudy: {
    method: 'PUT',
    path: '/api/studies/:study/archived',
    params: studyParams,
    body: studyArchiveSchema,
    reply: doneSchema,
    problems: [],
  },
  deleteStudy: {
    method: 'POST',
    path: '/api/studies/:study/deletion',
    params: studyParams,
    body: studyDeleteSchema,
    reply: doneSchema,
    problems: ['job_under_way', 'other_study_name'],
  },
  getMembership: {
    method: 'GET',
    path: '/api/studies/:study/membership',
    params: studyParams,
    reply: membershipSchema,
    problems: [],
  },
  changeMembership: {
    method: 'PATCH',
    path: '/api/studies/:study/membership',
    params: studyParams,
    body: membershipChangeSchema,
    reply: doneSchema,
    problems: [],
  },
});
