import { api, type Session } from '@yellow-thread/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { AccountRow } from '../database/index.js';
import { isFromThisMachine } from '../hosts.js';
import type { Threads } from '../jobs/index.js';
import { problems } from '../wording/problems.js';
import type { App } from '../app.types.js';
import { choosePassword, ensureDemoResearcher, isPasswordOf, signIn } from './accounts.js';
import { noteInAudit } from './audit.js';
import { requireAccount } from './guard.js';
import { acceptInvitation, openInvitation } from './invitations.js';
import { endOpenSession, listSessions } from './openSessions.js';
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
    action: 'signed_in' | 'entered_demo' | 'invitation_used' | 'password_reset',
  ) => {
    await request.session.regenerate();
    Object.assign(request.session, {
      accountId: account.id,
      browser: (request.headers['user-agent'] ?? '').slice(0, 300),
      address: request.ip,
    });
    request.account = account;
    const details = { address: request.ip };
    await noteInAudit(request.em, { action, accountId: account.id, details });
  };

  /** @throws Problem weak_password */
  const refuseWeak = async (name: string, password: string) => {
    const about = [...name.split(/\s+/u), name, 'yellow', 'thread', 'yellowthread'];
    const weakness = await threads.run('weaknessOf', { password, about });
    if (weakness !== null) throw problems.weakPassword(weakness);
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
      await refuseWeak(account.name, body.password);
      await choosePassword(em, account, body.password, request.session.sessionId);
      await noteInAudit(em, { action: 'password_chosen', accountId: account.id });
      return sessionOf(request, reply);
    },
    { config: fewTries },
  );

  route(
    app,
    api.openInvitation,
    async ({ em, body }) => {
      const { name, role, study, madeBy, expiresAt } = await openInvitation(em, body.token);
      return { name, role, study, madeBy, expiresAt };
    },
    { config: fewTries },
  );

  route(
    app,
    api.acceptInvitation,
    async (request, reply) => {
      const { em, body } = request;
      const { token, password } = body;
      const invitation = await openInvitation(em, token);
      const isReset = invitation.accountId !== null;
      if (password === undefined) {
        const account = requireAccount(request);
        const { studyId } = await acceptInvitation(em, token, { accountId: account.id });
        await noteInAudit(em, { action: 'invitation_used', accountId: account.id, studyId });
        return sessionOf(request, reply);
      }
      const name = isReset ? invitation.name : (body.name ?? invitation.name);
      await refuseWeak(name, password);
      const { account } = await acceptInvitation(em, token, { name, password });
      await enter(request, account, isReset ? 'password_reset' : 'invitation_used');
      return sessionOf(request, reply);
    },
    { config: fewTries },
  );

  route(app, api.listSessions, async (request) => {
    const { id } = requireAccount(request);
    return { sessions: await listSessions(request.em, id, request.session.sessionId) };
  });
  route(app, api.endSession, async (request) => {
    const { id } = requireAccount(request);
    await endOpenSession(request.em, id, request.params.session);
    await noteInAudit(request.em, { action: 'session_ended', accountId: id });
    return DONE;
  });
}
