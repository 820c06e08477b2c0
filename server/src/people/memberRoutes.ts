import {
  doneSchema,
  memberCreateSchema,
  memberParams,
  membersSchema,
  oneTimePasswordSchema,
  studyParams,
} from '@yellow-thread/contract';
import type { FastifyRequest } from 'fastify';
import type { App } from '../app.types.js';
import { noteInAudit, type AuditAction } from './audit.js';
import { requireAccount } from './guard.js';
import { addMember, givePassword, listMembers, removeMember } from './members.js';

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
  const path = '/api/studies/:study/members';
  app.get(
    path,
    {
      schema: { operationId: 'listMembers', params: studyParams, response: { 200: membersSchema } },
    },
    async (request) => ({
      members: await listMembers(request.em, requireAccount(request), request.params.study),
    }),
  );
  app.post(
    path,
    {
      config: notMany,
      schema: {
        operationId: 'addMember',
        params: studyParams,
        body: memberCreateSchema,
        response: { 200: oneTimePasswordSchema },
      },
    },
    async (request) => {
      const { em, params, body } = request;
      const { member, ...given } = await addMember(em, params.study, body.name);
      await note(request, 'member_added', member);
      return given;
    },
  );
  app.post(
    `${path}/:member/password`,
    {
      config: notMany,
      schema: {
        operationId: 'givePassword',
        params: memberParams,
        response: { 200: oneTimePasswordSchema },
      },
    },
    async (request) => {
      const { study, member } = request.params;
      const given = await givePassword(request.em, requireAccount(request), study, member);
      await note(request, 'password_given', member);
      return given;
    },
  );
  app.delete(
    `${path}/:member`,
    {
      schema: { operationId: 'removeMember', params: memberParams, response: { 200: doneSchema } },
    },
    async (request) => {
      const { em, params } = request;
      await removeMember(em, requireAccount(request), params.study, params.member);
      await note(request, 'member_removed', params.member);
      return { done: true as const };
    },
  );
}
