import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { enqueueJob, newestJob, type Threads } from '../jobs/index.js';
import { requireAccount } from '../people/index.js';
import { route } from '../route.js';
import { encoderInUse } from './encoder.js';
import { nearestAnswers } from './nearest.js';

export function sentenceRoutes(app: App, threads: Threads): void {
  route(app, api.getMeaning, async ({ em, params }) => ({
    encoder: (await encoderInUse())?.id ?? null,
    job: await newestJob(em, 'encode', { studyId: params.study }),
  }));
  route(app, api.readForMeaning, (request) =>
    enqueueJob(request.em, {
      kind: 'encode',
      studyId: request.params.study,
      questionId: null,
      accountId: requireAccount(request).id,
      payload: {},
    }),
  );
  route(app, api.getNearestAnswers, async (request) => {
    const { em, params, query } = request;
    const asked = {
      studyId: params.study,
      codeId: params.code,
      questionId: query.question ?? null,
      limit: query.limit,
    };
    return nearestAnswers(em, threads, asked, await request.within());
  });
}
