import { api } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { FastifyRequest } from 'fastify';
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
import type { Threads } from '../jobs/index.js';
import { orderMentions } from './mentionOrder.js';
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
import { route } from '../route.js';

/** Every change replies with the codebook as it is after it. */
export function codebookRoutes(app: App, threads: Threads): void {
  const changed = async (
    request: FastifyRequest<{ Params: { study: number } }>,
    change: (em: EntityManager, maker: Maker) => Promise<void>,
  ) => {
    const { study } = request.params;
    await change(request.em, makerOf(request, study));
    return readCodebook(request.em, study, await request.within());
  };

  route(app, api.getCodebook, async (request) =>
    readCodebook(request.em, request.params.study, await request.within()),
  );
  route(app, api.createCode, (request) =>
    changed(request, (em, maker) => createCode(em, maker, request.body)),
  );
  route(app, api.editCode, (request) =>
    changed(request, (em, maker) => editCode(em, maker, request.params.code, request.body)),
  );
  route(app, api.removeCode, (request) =>
    changed(request, (em, maker) => removeCode(em, maker, request.params.code)),
  );
  route(app, api.getCodeImpact, ({ em, params, query }) =>
    impactOn(em, params.study, params.code, query.into ?? null),
  );
  route(app, api.listMentionsOfCode, ({ em, params }) =>
    readMentionsOfCode(em, params.study, params.code),
  );
  route(app, api.orderMentions, ({ em, params, body }) =>
    orderMentions(em, threads, params.study, body),
  );
  route(app, api.mergeCode, (request) =>
    changed(request, (em, maker) => mergeCode(em, maker, request.params.code, request.body.into)),
  );
  route(
    app,
    api.sortMentions,
    (request) => changed(request, (em, maker) => sortMentions(em, maker, request.body)),
    { bodyLimit: 4 * 1024 * 1024 },
  );
  route(app, api.moveCode, (request) =>
    changed(request, (em, maker) => moveCode(em, maker, request.params.code, request.body)),
  );
  route(app, api.codeToTheme, (request) =>
    changed(request, (em, maker) => codeToTheme(em, maker, request.params.code)),
  );
  route(app, api.createTheme, (request) =>
    changed(request, (em, maker) => createTheme(em, maker, request.body)),
  );
  route(app, api.editTheme, (request) =>
    changed(request, (em, maker) => editTheme(em, maker, request.params.theme, request.body)),
  );
  route(app, api.removeTheme, (request) =>
    changed(request, (em, maker) => removeTheme(em, maker, request.params.theme)),
  );
  route(app, api.moveTheme, (request) =>
    changed(request, (em, maker) =>
      moveTheme(em, maker, request.params.theme, request.body.before),
    ),
  );
  route(app, api.themeToCode, (request) =>
    changed(request, (em, maker) => themeToCode(em, maker, request.params.theme)),
  );
  route(app, api.putBundle, (request) =>
    changed(request, (em, maker) =>
      putBundle(em, maker, { ...request.body, id: request.params.bundle }),
    ),
  );
  route(app, api.removeBundle, (request) =>
    changed(request, (em, maker) => removeBundle(em, maker, request.params.bundle)),
  );
  route(app, api.getPins, (request) =>
    readPins(request.em, makerOf(request, request.params.study)),
  );
  route(app, api.setPin, (request) => {
    const { study, key } = request.params;
    return setPin(request.em, makerOf(request, study), key, request.body.codeId);
  });
}
