import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { enqueueJob } from '../jobs/index.js';
import { makerOf, requireAccount } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { findQuestion } from '../study/index.js';
import { readFilter } from '../coding/index.js';
import { readRun, reinstateRun } from './runs.js';
import { includeWord, excludeWord } from './excludedWords.js';
import { describeTraining, hasSettled } from './training.js';
import { DONE, route } from '../route.js';

/** One seed for every run: what changes between two runs is the coding, never the dice. */
export const TRAINING_SEED = 1;

export function learningRoutes(app: App): void {
  route(app, api.getTraining, async ({ em, params }) => {
    const question = await findQuestion(em, params.study, params.question);
    return describeTraining(em, params.study, question.id);
  });
  route(app, api.train, async (request) => {
    const { study, question } = request.params;
    const { scope, learnFromBulk } = request.body;
    await findQuestion(request.em, study, question);
    readFilter(scope);
    if (!(await hasSettled(request.em, question))) throw problems.nothingSettled();
    return enqueueJob(request.em, {
      kind: 'train',
      studyId: study,
      questionId: question,
      accountId: requireAccount(request).id,
      payload: { seed: TRAINING_SEED, scope, learnFromBulk },
    });
  });
  route(app, api.getRun, async ({ em, params }) => {
    const question = await findQuestion(em, params.study, params.question);
    return readRun(em, question.id, params.run);
  });
  route(app, api.reinstateRun, async ({ em, params }) => {
    const question = await findQuestion(em, params.study, params.question);
    await reinstateRun(em, question.id, params.run);
    return DONE;
  });
  route(app, api.excludeWord, async (request) => {
    await excludeWord(request.em, makerOf(request, request.params.study), request.body);
    return DONE;
  });
  route(app, api.includeWord, async (request) => {
    const { study, id } = request.params;
    await includeWord(request.em, makerOf(request, study), id);
    return DONE;
  });
}
