import {
  doneSchema,
  memberCreateSchema,
  memberParams,
  membersSchema,
  oneTimePasswordSchema,
  studyParams,
} from '@yellow-thread/contract';
import type { App } from '../routeScope.js';
import { requireAccount } from './guard.js';
import { addMember, givePassword, listMembers, removeMember } from './members.js';

const notMany = { rateLimit: { max: 30, timeWindow: '1 minute' } };

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
    ({ em, params, body }) => addMember(em, params.study, body.name),
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
    (request) => {
      const { study, member } = request.params;
      return givePassword(request.em, requireAccount(request), study, member);
    },
  );
  app.delete(
    `${path}/:member`,
    {
      schema: { operationId: 'removeMember', params: memberParams, response: { 200: doneSchema } },
    },
    async ({ em, params }) => {
      await removeMember(em, params.study, params.member);
      return { done: true as const };
    },
  );
}
