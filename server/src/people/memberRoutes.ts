import { api } from '@yellow-thread/contract';
import type { FastifyRequest } from 'fastify';
import type { App } from '../app.types.js';
import { noteInAudit, type AuditAction } from './audit.js';
import { requireAccount } from './guard.js';
import { addMember, givePassword, listMembers, removeMember } from './members.js';
import { DONE, route } from '../route.js';

const notMany = { rateLimit: { max: 30, timeWindow: '1 minute' } };

const note = (
  request: FastifyRequest<{ Params: { study: number } }>,
  action: AuditAction,
  member: number,
) =>
  noteInAudit(request.em, {
    action,
    accountId: requireAccount(request).id,
    studyId: request.params.study,
    details: { member },
  });

/** Who works in a study. */
export function memberRoutes(app: App): void {
  route(app, api.listMembers, async (request) => ({
    members: await listMembers(request.em, requireAccount(request), request.params.study),
  }));
  route(
    app,
    api.addMember,
    async (request) => {
      const { em, params, body } = request;
      const { member, ...given } = await addMember(em, params.study, body.name);
      await note(request, 'member_added', member);
      return given;
    },
    { config: notMany },
  );
  route(
    app,
    api.givePassword,
    async (request) => {
      const { study, member } = request.params;
      const given = await givePassword(request.em, requireAccount(request), study, member);
      await note(request, 'password_given', member);
      return given;
    },
    { config: notMany },
  );
  route(app, api.removeMember, async (request) => {
    const { em, params } = request;
    await removeMember(em, requireAccount(request), params.study, params.member);
    await note(request, 'member_removed', params.member);
    return DONE;
  });
}
