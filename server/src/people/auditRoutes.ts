import { api, type AuditEntry } from '@yellow-thread/contract';
import { isoTime, rows } from '../database/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { OWNER } from './accounts.js';
import { noteInAudit } from './audit.js';
import { requireAccount } from './guard.js';
import { route } from '../route.js';

/** The owner of the installation reads who did what. */
export function auditRoutes(app: App): void {
  route(app, api.getAudit, async (request) => {
    if (requireAccount(request).name !== OWNER) throw problems.notFound('page');
    const { before, most } = request.query;
    const entries = await rows<AuditEntry>(
      request.em,
      `select a.id::int as id, ${isoTime('a.at')} as at, a.action, a.account_id as "accountId",
           c.name as account, a.study_id as "studyId", a.details
         from audit a left join account c on c.id = a.account_id
         where a.id < :before order by a.id desc limit :most`,
      { before: before ?? Number.MAX_SAFE_INTEGER, most },
    );
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
