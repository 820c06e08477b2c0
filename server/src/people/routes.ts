import { api, type Session } from '@yellow-thread/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { AccountRow } from '../database/index.js';
import { isFromThisMachine } from '../hosts.js';
import type { Threads } from '../jobs/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { choosePassword, ensureDemoResearcher, isPasswordOf, signIn } from './accounts.js';
import { noteInAudit } from './audit.js';
import { beginAttempt } from './signInAttempts.js';
import { DONE, route } from '../route.js';

const fewTries = { rateLimit: { max: 30, timeWindow: '1 minute' } };

/** @param demo whether the demo may be entered without a password by who sits at the server's machine */
export function peopleRoutes(app: App, threads: Threads, demo: boolean): void {
  const sessionOf = (request: FastifyRequest, reply: FastifyReply): Session => ({
    account: request.account && {
      id: request.account.id,
      name: request.account.name,
      choosesPassword: request.account.choosesPassword,
      hasPassword: request.account.passwordHash !== null,
    },
    // a token is kept in a session, and nobody has one before signing in
    csrfToken: request.account ? reply.generateCsrf() : null,
    demoOffered: demo && isFromThisMachine(request),
  });
  const enter = async (
    request: FastifyRequest,
    account: AccountRow,
    action: 'signed_in' | 'entered_demo',
  ) => {
    await request.session.regenerate();
    request.session.accountId = account.id;
    request.account = account;
    const details = { address: request.ip };
    await noteInAudit(request.em, { action, accountId: account.id, details });
  };

  route(app, api.getSession, (request, reply) => Promise.resolve(sessionOf(request, reply)));

  route(app, api.signIn, async (request, reply) => {
    const { em, ip, body } = request;
    const wasRight = await beginAttempt(em, { name: body.name, address: ip });
    const account = await signIn(em, body.name, body.password).catch(async (error: unknown) => {
      const details = { address: ip };
      await noteInAudit(em, { action: 'sign_in_refused', accountId: null, details });
      throw error;
    });
    await wasRight();
    await enter(request, account, 'signed_in');
    return sessionOf(request, reply);
  });

  route(
    app,
    api.enterDemo,
    async (request, reply) => {
      if (!demo || !isFromThisMachine(request)) throw problems.demoNotOffered();
      await enter(request, await ensureDemoResearcher(request.em), 'entered_demo');
      return sessionOf(request, reply);
    },
    { config: fewTries },
  );

  route(app, api.signOut, async (request) => {
    const { account } = request;
    await request.session.destroy();
    if (account) await noteInAudit(request.em, { action: 'signed_out', accountId: account.id });
    return DONE;
  });

  route(
    app,
    api.choosePassword,
    async (request, reply) => {
      const { em, account, body, ip } = request;
      if (!account?.passwordHash) throw problems.notSignedIn();
      if (!account.choosesPassword) {
        const wasRight = await beginAttempt(em, { name: account.name, address: ip });
        if (!(await isPasswordOf(account, body.old ?? ''))) throw problems.wrongOldPassword();
        await wasRight();
      }
      const about = [
        ...account.name.split(/\s+/u),
        account.name,
        'yellow',
        'thread',
        'yellowthread',
      ];
      const weakness = await threads.run('weaknessOf', { password: body.password, about });
      if (weakness !== null) throw problems.weakPassword(weakness);
      await choosePassword(em, account, body.password, request.session.sessionId);
      await noteInAudit(em, { action: 'password_chosen', accountId: account.id });
      return sessionOf(request, reply);
    },
    { config: fewTries },
  );
}
