import {
  jobSchema,
  rolesSchema,
  sheetCheckSchema,
  sheetParams,
  sheetSchema,
  studyParams,
} from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { enqueueJob, type Threads } from '../jobs/index.js';
import { requireAccount } from '../people/index.js';
import { problems } from '../problems.js';
import { checkSheet, findSheet, keepSheet } from './sheets.js';

export function sheetRoutes(app: App, threads: Threads): void {
  app.post(
    '/api/studies/:study/sheets',
    {
      schema: {
        operationId: 'uploadSheet',
        consumes: ['multipart/form-data'],
        params: studyParams,
        response: { 200: sheetSchema },
      },
    },
    async (request) => {
      const file = await request.file();
      if (!file) throw problems.invalidRequest({ field: 'file' });
      return keepSheet(request.em, threads, {
        studyId: request.params.study,
        accountId: requireAccount(request).id,
        fileName: file.filename.slice(-200),
        content: await file.toBuffer(),
      });
    },
  );

  app.post(
    '/api/studies/:study/sheets/:sheet/check',
    {
      schema: {
        operationId: 'checkSheet',
        params: sheetParams,
        body: rolesSchema,
        response: { 200: sheetCheckSchema },
      },
    },
    ({ em, params, body }) => checkSheet(em, threads, params.study, params.sheet, body.roles),
  );

  app.post(
    '/api/studies/:study/sheets/:sheet/import',
    {
      schema: {
        operationId: 'importSheet',
        params: sheetParams,
        body: rolesSchema,
        response: { 200: jobSchema },
      },
    },
    async (request) => {
      const { study, sheet } = request.params;
      const { columns } = await findSheet(request.em, study, sheet);
      if (request.body.roles.length !== columns.length)
        throw problems.invalidRequest({ field: 'roles' });
      return enqueueJob(request.em, {
        kind: 'import',
        studyId: study,
        questionId: null,
        accountId: requireAccount(request).id,
        payload: { sheetId: sheet, roles: request.body.roles },
      });
    },
  );
}
