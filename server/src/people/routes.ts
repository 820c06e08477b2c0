import {
  choosePasswordSchema,
  doneSchema,
  sessionSchema,
  signInSchema,
  type Session,
} from '@yellow-thread/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { App } from '../routeScope.js';
import type { AccountRow } from '../database/index.js';
import { problems } from '../problems.js';
import { choosePassword, ensureDemoResearcher, signIn } from './accounts.js';

const fewTries = { rateLimit: { max: 10, timeWindow: '1 minute' } };

/** @param demoOffered true while the server is bound to loopback and has the demo study */
export function peopleRoutes(app: App, demoOffered: boolean): void {
  const sessionOf = (request: FastifyRequest, reply: FastifyReply): Session => ({
    account: request.account && {
      id: request.account.id,
      name: request.account.name,
      choosesPassword: request.account.choosesPassword,
    },
    csrfToken: reply.generateCsrf(),
    demoOffered,
  });
  const enter = async (request: FastifyRequest, account: AccountRow) => {
    await request.session.regenerate();
    request.session.accountId = account.id;
    request.account = account;
  };
  const replies = { 200: sessionSchema };

  app.get(
    '/api/session',
    { schema: { operationId: 'getSession', response: replies } },
    (request, reply) => Promise.resolve(sessionOf(request, reply)),
  );

  app.post(
    '/api/session',
    {
      config: fewTries,
      schema: { operationId: 'signIn', body: signInSchema, response: replies },
    },
    async (request, reply) => {
      await enter(request, await signIn(request.em, request.body.name, request.body.password));
      return sessionOf(request, reply);
    },
  );

  app.post(
    '/api/session/demo',
    { config: fewTries, schema: { operationId: 'enterDemo', response: replies } },
    async (request, reply) => {
      if (!demoOffered) throw problems.demoNotOffered();
      await enter(request, await ensureDemoResearcher(request.em));
      return sessionOf(request, reply);
    },
  );

  app.delete(
    '/api/session',
    { schema: { operationId: 'signOut', response: { 200: doneSchema } } },
    async (request) => {
      await request.session.destroy();
      return { done: true as const };
    },
  );

  app.put(
    '/api/password',
    {
      config: fewTries,
      schema: { operationId: 'choosePassword', body: choosePasswordSchema, response: replies },
    },
    async (request, reply) => {
      if (!request.account?.passwordHash) throw problems.notSignedIn();
      await choosePassword(
        request.em,
        request.account,
        request.body.password,
        request.session.sessionId,
      );
      return sessionOf(request, reply);
    },
  );
}
