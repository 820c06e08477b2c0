import {
  studyCreateSchema,
  studyDetailSchema,
  studyListSchema,
  studyParams,
  studySummarySchema,
  withinQuery,
} from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { requireAccount, requireStudy } from '../people/index.js';
import { createStudy, describeStudy, listStudies } from './studies.js';

export function studyRoutes(app: App): void {
  app.get(
    '/api/studies',
    { schema: { operationId: 'listStudies', response: { 200: studyListSchema } } },
    async (request) => ({
      studies: await listStudies(request.em, requireAccount(request).id),
    }),
  );
  app.post(
    '/api/studies',
    {
      schema: {
        operationId: 'createStudy',
        body: studyCreateSchema,
        response: { 200: studySummarySchema },
      },
    },
    (request) => createStudy(request.em, requireAccount(request).id, request.body),
  );
  app.get(
    '/api/studies/:study',
    {
      onRequest: requireStudy,
      schema: {
        operationId: 'getStudy',
        params: studyParams,
        querystring: withinQuery,
        response: { 200: studyDetailSchema },
      },
    },
    async (request) => describeStudy(request.em, request.params.study, await request.within()),
  );
}
