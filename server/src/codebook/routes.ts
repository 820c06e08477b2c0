import {
  bundleFields,
  bundleParams,
  codebookSchema,
  codeCreateSchema,
  mentionSortSchema,
  codeEditSchema,
  codeImpactSchema,
  codeMergeSchema,
  codeMoveSchema,
  codeParams,
  mentionsOfCodeSchema,
  pinParams,
  pinSchema,
  pinsSchema,
  studyParams,
  themeCreateSchema,
  themeEditSchema,
  themeMoveSchema,
  themeParams,
  uuidSchema,
  withinQuery,
} from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { FastifyRequest } from 'fastify';
import { z } from 'zod';
import type { App } from '../app.types.js';
import { makerOf, type Maker } from '../people/index.js';
import { putBundle, removeBundle } from './bundles.js';
import {
  createCode,
  createTheme,
  editCode,
  editTheme,
  moveCode,
  moveTheme,
  removeTheme,
} from './codebook.js';
import { readMentionsOfCode } from './mentionsOfCode.js';
import { readPins, setPin } from './pins.js';
import { readCodebook } from './readCodebook.js';
import {
  codeToTheme,
  sortMentions,
  impactOn,
  mergeCode,
  removeCode,
  themeToCode,
} from './reshape.js';

/** Every change replies with the codebook as it is after it. */
export function codebookRoutes(app: App): void {
  const response = { 200: codebookSchema };
  const changed = async (
    request: FastifyRequest<{ Params: { study: number } }>,
    change: (em: EntityManager, maker: Maker) => Promise<void>,
  ) => {
    const { study } = request.params;
    await change(request.em, makerOf(request, study));
    return readCodebook(request.em, study, await request.within());
  };

  app.get(
    '/api/studies/:study/codebook',
    {
      schema: {
        operationId: 'getCodebook',
        params: studyParams,
        querystring: withinQuery,
        response,
      },
    },
    async (request) => readCodebook(request.em, request.params.study, await request.within()),
  );
  app.post(
    '/api/studies/:study/codes',
    {
      schema: { operationId: 'createCode', params: studyParams, body: codeCreateSchema, response },
    },
    (request) => changed(request, (em, maker) => createCode(em, maker, request.body)),
  );
  app.patch(
    '/api/studies/:study/codes/:code',
    { schema: { operationId: 'editCode', params: codeParams, body: codeEditSchema, response } },
    (request) =>
      changed(request, (em, maker) => editCode(em, maker, request.params.code, request.body)),
  );
  app.delete(
    '/api/studies/:study/codes/:code',
    { schema: { operationId: 'removeCode', params: codeParams, response } },
    (request) => changed(request, (em, maker) => removeCode(em, maker, request.params.code)),
  );
  app.get(
    '/api/studies/:study/codes/:code/impact',
    {
      schema: {
        operationId: 'getCodeImpact',
        params: codeParams,
        querystring: z.object({ into: uuidSchema.optional() }),
        response: { 200: codeImpactSchema },
      },
    },
    ({ em, params, query }) => impactOn(em, params.study, params.code, query.into ?? null),
  );
  app.get(
    '/api/studies/:study/codes/:code/mentions',
    {
      schema: {
        operationId: 'listMentionsOfCode',
        params: codeParams,
        response: { 200: mentionsOfCodeSchema },
      },
    },
    ({ em, params }) => readMentionsOfCode(em, params.study, params.code),
  );
  app.post(
    '/api/studies/:study/codes/:code/merge',
    { schema: { operationId: 'mergeCode', params: codeParams, body: codeMergeSchema, response } },
    (request) =>
      changed(request, (em, maker) => mergeCode(em, maker, request.params.code, request.body.into)),
  );
  app.post(
    '/api/studies/:study/codes/sort',
    {
      schema: {
        operationId: 'sortMentions',
        params: studyParams,
        body: mentionSortSchema,
        response,
      },
      bodyLimit: 4 * 1024 * 1024,
    },
    (request) => changed(request, (em, maker) => sortMentions(em, maker, request.body)),
  );
  app.post(
    '/api/studies/:study/codes/:code/place',
    { schema: { operationId: 'moveCode', params: codeParams, body: codeMoveSchema, response } },
    (request) =>
      changed(request, (em, maker) => moveCode(em, maker, request.params.code, request.body)),
  );
  app.post(
    '/api/studies/:study/codes/:code/theme',
    { schema: { operationId: 'codeToTheme', params: codeParams, response } },
    (request) => changed(request, (em, maker) => codeToTheme(em, maker, request.params.code)),
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
    (request) => changed(request, (em, maker) => createTheme(em, maker, request.body)),
  );
  app.patch(
    '/api/studies/:study/themes/:theme',
    { schema: { operationId: 'editTheme', params: themeParams, body: themeEditSchema, response } },
    (request) =>
      changed(request, (em, maker) => editTheme(em, maker, request.params.theme, request.body)),
  );
  app.delete(
    '/api/studies/:study/themes/:theme',
    { schema: { operationId: 'removeTheme', params: themeParams, response } },
    (request) => changed(request, (em, maker) => removeTheme(em, maker, request.params.theme)),
  );
  app.post(
    '/api/studies/:study/themes/:theme/place',
    { schema: { operationId: 'moveTheme', params: themeParams, body: themeMoveSchema, response } },
    (request) =>
      changed(request, (em, maker) =>
        moveTheme(em, maker, request.params.theme, request.body.before),
      ),
  );
  app.post(
    '/api/studies/:study/themes/:theme/code',
    { schema: { operationId: 'themeToCode', params: themeParams, response } },
    (request) => changed(request, (em, maker) => themeToCode(em, maker, request.params.theme)),
  );
  app.put(
    '/api/studies/:study/bundles/:bundle',
    { schema: { operationId: 'putBundle', params: bundleParams, body: bundleFields, response } },
    (request) =>
      changed(request, (em, maker) =>
        putBundle(em, maker, { ...request.body, id: request.params.bundle }),
      ),
  );
  app.delete(
    '/api/studies/:study/bundles/:bundle',
    { schema: { operationId: 'removeBundle', params: bundleParams, response } },
    (request) => changed(request, (em, maker) => removeBundle(em, maker, request.params.bundle)),
  );
  app.get(
    '/api/studies/:study/pins',
    { schema: { operationId: 'getPins', params: studyParams, response: { 200: pinsSchema } } },
    (request) => readPins(request.em, makerOf(request, request.params.study)),
  );
  app.put(
    '/api/studies/:study/pins/:key',
    {
      schema: {
        operationId: 'setPin',
        params: pinParams,
        body: pinSchema,
        response: { 200: pinsSchema },
      },
    },
    (request) => {
      const { study, key } = request.params;
      return setPin(request.em, makerOf(request, study), key, request.body.codeId);
    },
  );
}
