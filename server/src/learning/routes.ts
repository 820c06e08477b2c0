import { jobSchema, questionParams, trainingSchema } from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { enqueueJob } from '../jobs/index.js';
import { requireAccount } from '../people/index.js';
import { problems } from '../problems.js';
import { findQuestion } from '../study/index.js';
import { describeTraining } from './training.js';

/** One seed for every run: what changes between two runs is the coding, never the dice. */
export const TRAINING_SEED = 1;

export function learningRoutes(app: App): void {
  app.get(
    '/api/studies/:study/questions/:question/training',
    {
      schema: {
        operationId: 'getTraining',
        params: questionParams,
        response: { 200: trainingSchema },
      },
    },
    async ({ em, params }) => {
      const question = await findQuestion(em, params.study, params.question);
      return describeTraining(em, question.id);
    },
  );
  app.post(
    '/api/studies/:study/questions/:question/training',
    { schema: { operationId: 'train', params: questionParams, response: { 200: jobSchema } } },
    async (request) => {
      const { study, question } = request.params;
      await findQuestion(request.em, study, question);
      const { settled } = await describeTraining(request.em, question);
      if (settled === 0) throw problems.nothingSettled();
      return enqueueJob(request.em, {
        kind: 'train',
        studyId: study,
        questionId: question,
        accountId: requireAccount(request).id,
        payload: { seed: TRAINING_SEED },
      });
    },
  );
}
