import { api } from '@yellow-thread/contract';
import type { FastifyRequest } from 'fastify';
import type { App } from '../app.types.js';
import { noteInAudit, type AuditAction, type AuditNote } from './audit.js';
import { makerOf, requireAccount } from './guard.js';
import { invite, inviteToReset, listInvitations, withdrawInvitation } from './invitations.js';
import { changeRole, listMembers, removeMember } from './members.js';
import { DONE, route } from '../route.js';

const notMany = { rateLimit: { max: 30, timeWindow: '1 minute' } };

const note = (
  request: FastifyRequest<{ Params: { study: number } }>,
  action: AuditAction,
  details: AuditNote['details'] = {},
) =>
  noteInAudit(request.em, {
    action,
    accountId: requireAccount(request).id,
    studyId: request.params.study,
    details,
  });

/** Who works in a study, in which role, and who is let in. */
export function memberRoutes(app: App): void {
  route(app, api.listMembers, async (request) => {
    const { em, params, role } = request;
    const actor = requireAccount(request);
    return {
      members: await listMembers(em, { actor, studyId: params.study, role: role! }),
      invitations: role === 'owner' ? await listInvitations(em, params.study) : [],
    };
  });
  route(app, api.changeMember, async (request) => {
    const { em, params, body } = request;
    await changeRole(em, makerOf(request, params.study), params.member, body.role);
    await note(request, 'role_changed', { member: params.member, role: body.role });
    return DONE;
  });
  route(
    app,
    api.invite,
    async (request) => {
      const { em, params, body } = request;
      const link = await invite(em, makerOf(request, params.study), body);
      await note(request, 'invited', { role: body.role });
      return link;
    },
    { config: notMany },
  );
  route(app, api.withdrawInvitation, async (request) => {
    const { study, invitation } = request.params;
    await withdrawInvitation(request.em, study, invitation);
    await note(request, 'invitation_withdrawn');
    return DONE;
  });
  route(
    app,
    api.resetPassword,
    async (request) => {
      const { study, member } = request.params;
      const actor = requireAccount(request);
      const link = await inviteToReset(request.em, actor, makerOf(request, study), member);
      await note(request, 'password_reset_offered', { member });
      return link;
    },
    { config: notMany },
  );
  route(app, api.removeMember, async (request) => {
    const { em, params, role } = request;
    const maker = makerOf(request, params.study);
    await removeMember(em, { maker, role: role!, memberId: params.member });
    await note(request, 'member_removed', { member: params.member });
    return DONE;
  });
}
