import { defineEndpoints } from '../endpoint.js';
import { doneSchema, questionParams, studyParams } from '../ids.js';
import { jobSchema } from '../jobs/records.js';
import {
  excludeWordSchema,
  excludedWordParams,
  runParams,
  trainSchema,
  trainingRunSchema,
  trainingSchema,
} from './records.js';

export const learningEndpoints = defineEndpoints({
  getTraining: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/training',
    params: questionParams,
    reply: trainingSchema,
    problems: [],
  },
  train: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/training',
    params: questionParams,
    body: trainSchema,
    reply: jobSchema,
    problems: ['job_under_way', 'nothing_settled', 'wrong_scope'],
  },
  getRun: {
    method: 'GET',
    path: '/api/studies/:study/questions/:question/training/runs/:run',
    params: runParams,
    reply: trainingRunSchema,
    problems: [],
  },
  reinstateRun: {
    method: 'POST',
    path: '/api/studies/:study/questions/:question/training/runs/:run/reinstate',
    params: runParams,
    reply: doneSchema,
    problems: ['run_not_kept'],
  },
  excludeWord: {
    method: 'POST',
    path: '/api/studies/:study/excluded-words',
    params: studyParams,
    body: excludeWordSchema,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
  includeWord: {
    method: 'DELETE',
    path: '/api/studies/:study/excluded-words/:id',
    params: excludedWordParams,
    reply: doneSchema,
    problems: ['changed_meanwhile'],
  },
});
