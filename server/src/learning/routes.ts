import {
  doneSchema,
  jobSchema,
  questionParams,
  runParams,
  excludeWordSchema,
  excludedWordParams,
  studyParams,
  trainingRunSchema,
  trainingSchema,
  trainSchema,
} from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { enqueueJob } from '../jobs/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { findQuestion } from '../study/index.js';
import { readScope } from './material.js';
import { readRun, reinstateRun } from './runs.js';
import { includeWord, excludeWord } from './excludedWords.js';
import { describeTraining, hasSettled } from './training.js';

/** One seed for every run: what changes between two runs is the coding, never the dice. */
export const TRAINING_SEED = 1;

export function learningRoutes(app: App): void {
  const path = '/api/studies/:study/questions/:question/training';
  const done = { done: true as const };

  app.get(
    path,
    {
      schema: {
        operationId: 'getTraining',
        params: questionParams,
        response: { 200: trainingSchema },
      },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return describeTraining(em, params.study, question.id);
    },
  );
  app.post(
    path,
    {
      schema: {
        operationId: 'train',
        params: questionParams,
        body: trainSchema,
        response: { 200: jobSchema },
      },
    },
    async (request) => {
      const { study, question } = request.params;
      const { scope, learnFromBulk } = request.body;
      await findQuestion(request.em, study, question);
      readScope(scope);
      if (!(await hasSettled(request.em, question))) throw problems.nothingSettled();
      return enqueueJob(request.em, {
        kind: 'train',
        studyId: study,
        questionId: question,
        accountId: requireAccount(request).id,
        payload: { seed: TRAINING_SEED, scope, learnFromBulk },
      });
    },
  );
  app.get(
    `${path}/runs/:run`,
    {
      schema: { operationId: 'getRun', params: runParams, response: { 200: trainingRunSchema } },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return readRun(em, question.id, params.run);
    },
  );
  app.post(
    `${path}/runs/:run/reinstate`,
    {
      schema: { operationId: 'reinstateRun', params: runParams, response: { 200: doneSchema } },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      await reinstateRun(em, question.id, params.run);
      return done;
    },
  );
  app.post(
    '/api/studies/:study/struck-words',
    {
      schema: {
        operationId: 'strikeWord',
        params: studyParams,
        body: excludeWordSchema,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      await excludeWord(request.em, makerOf(request, request.params.study), request.body);
      return done;
    },
  );
  app.delete(
    '/api/studies/:study/struck-words/:id',
    {
      schema: {
        operationId: 'bringBackWord',
        params: excludedWordParams,
        response: { 200: doneSchema },
      },
    },
    async (request) => {
      const { study, id } = request.params;
      await includeWord(request.em, makerOf(request, study), id);
      return done;
    },
  );
}
