import { api } from '@yellow-thread/contract';
import type { App } from '../app.types.js';
import { cancelJob, findJob } from './jobs.js';
import { route } from '../route.js';

export function jobRoutes(app: App): void {
  route(app, api.getJob, ({ em, params }) => findJob(em, params.study, params.job));
  route(app, api.cancelJob, ({ em, params }) => cancelJob(em, params.study, params.job));
}
