import { api } from '@yellow-thread/contract';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { OWNER } from './accounts.js';
import { noteInAudit, readAudit } from './audit.js';
import { requireAccount } from './guard.js';
import { route } from '../route.js';

/** The owner of the installation reads who did what. */
export function auditRoutes(app: App): void {
  route(app, api.getAudit, async (request) => {
    if (requireAccount(request).name !== OWNER) throw problems.notFound('page');
    const { before, most } = request.query;
    const entries = await readAudit(request.em, { before, most });
    return { entries };
  });
}

/** Notes each file that somebody took away. */
export function noteExports(app: App): void {
  app.addHook('onResponse', async (request, reply) => {
    const isFile = String(reply.getHeader('content-disposition') ?? '').includes('filename=');
    if (!isFile || reply.statusCode !== 200 || !request.account) return;
    const { study } = request.params as { study?: number };
    await noteInAudit(request.em, {
      action: 'exported',
      accountId: request.account.id,
      ...(study && { studyId: study }),
      details: { path: request.url.split('?')[0]! },
    }).catch((error: unknown) => request.log.error({ err: error }, 'an export was not noted'));
  });
}
