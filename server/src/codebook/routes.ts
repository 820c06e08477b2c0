import {
  codebookSchema,
  codeCreateSchema,
  codeEditSchema,
  codeParams,
  studyParams,
  themeCreateSchema,
  themeEditSchema,
  themeParams,
} from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { makerOf } from '../people/index.js';
import {
  createCode,
  createTheme,
  editCode,
  readCodebook,
  removeCode,
  renameTheme,
} from './codebook.js';

/** Every change replies with the codebook as it is after it. */
export function codebookRoutes(app: App): void {
  const response = { 200: codebookSchema };

  app.get(
    '/api/studies/:study/codebook',
    { schema: { operationId: 'getCodebook', params: studyParams, response } },
    ({ em, params }) => readCodebook(em, params.study),
  );
  app.post(
    '/api/studies/:study/codes',
    {
      schema: { operationId: 'createCode', params: studyParams, body: codeCreateSchema, response },
    },
    async (request) => {
      const { study } = request.params;
      await createCode(request.em, makerOf(request, study), request.body);
      return readCodebook(request.em, study);
    },
  );
  app.patch(
    '/api/studies/:study/codes/:code',
    { schema: { operationId: 'editCode', params: codeParams, body: codeEditSchema, response } },
    async (request) => {
      const { study, code } = request.params;
      await editCode(request.em, makerOf(request, study), code, request.body);
      return readCodebook(request.em, study);
    },
  );
  app.delete(
    '/api/studies/:study/codes/:code',
    { schema: { operationId: 'removeCode', params: codeParams, response } },
    async (request) => {
      const { study, code } = request.params;
      await removeCode(request.em, makerOf(request, study), code);
      return readCodebook(request.em, study);
    },
  );
  app.post(
    '/api/studies/:study/themes',
    {
      schema: {
        operationId: 'createTheme',
        params: studyParams,
        body: themeCreateSchema,
        response,
      },
    },
    async (request) => {
      const { study } = request.params;
      await createTheme(request.em, makerOf(request, study), request.body);
      return readCodebook(request.em, study);
    },
  );
  app.patch(
    '/api/studies/:study/themes/:theme',
    {
      schema: { operationId: 'renameTheme', params: themeParams, body: themeEditSchema, response },
    },
    async (request) => {
      const { study, theme } = request.params;
      await renameTheme(request.em, makerOf(request, study), theme, request.body);
      return readCodebook(request.em, study);
    },
  );
}
