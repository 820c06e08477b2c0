import { jobParams, jobSchema } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { cancelJob, findJob } from './jobs.js';

export function jobRoutes(app: App): void {
  const replies = { 200: jobSchema };
  app.get(
    '/api/studies/:study/jobs/:job',
    { schema: { operationId: 'getJob', params: jobParams, response: replies } },
    ({ em, params }) => findJob(em, params.study, params.job),
  );
  app.delete(
    '/api/studies/:study/jobs/:job',
    { schema: { operationId: 'cancelJob', params: jobParams, response: replies } },
    ({ em, params }) => cancelJob(em, params.study, params.job),
  );
}
