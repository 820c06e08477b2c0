import cookie from '@fastify/cookie';
import csrf from '@fastify/csrf-protection';
import multipart from '@fastify/multipart';
import session from '@fastify/session';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { agreementRoutes } from './agreement/index.js';
import type { AppOptions } from './appOptions.js';
import { isTooDeep } from './bodyDepth.js';
import { assistantRoutes } from './assistant/index.js';
import { codebookRoutes } from './codebook/index.js';
import { codeMapRoutes } from './codeMaps/index.js';
import { codingRoutes } from './coding/index.js';
import { exchangeRoutes } from './exchange/index.js';
import { historyRoutes, openStudyEvents, streamRoutes } from './history/index.js';
import { noteRoutes } from './notes/index.js';
import { groupRoutes, readWithin } from './groups/index.js';
import { isRead } from './hosts.js';
import { jobRoutes } from './jobs/index.js';
import { learningRoutes } from './learning/index.js';
import { lookRoutes } from './look/index.js';
import {
  auditRoutes,
  createSessionStore,
  loadAccount,
  memberRoutes,
  noteExports,
  peopleRoutes,
  requireAssigned,
  requireStudy,
  SESSION_DAYS,
  sessionSecret,
} from './people/index.js';
import { personalDataRoutes } from './personalData/index.js';
import { problems } from './wording/problems.js';
import { reportRoutes } from './report/index.js';
import { finishRoutes, reviewRoutes } from './review/index.js';
import type { App } from './app.types.js';
import { samplingRoutes } from './sampling/index.js';
import { sentenceRoutes } from './sentences/index.js';
import { importRoutes, LARGEST_SHEET, sheetRoutes } from './sheet/index.js';
import { respondentRoutes } from './respondents/index.js';
import { studyContentRoutes, studyRoutes } from './study/index.js';
import { mergeRoutes, openCopyRoute, saveCopyRoute } from './studyFile/index.js';
import { toneRoutes } from './tone/index.js';
import { writeUpRoutes } from './writeUps/index.js';

/** Everything below `/api`: each request is looked up by its session, and by the study that it is about. */
export async function serveApi(
  api: App,
  { orm, threads, demo, publicUrls = [], largestSheet = LARGEST_SHEET }: AppOptions,
): Promise<void> {
  const isEncryptedOnly =
    publicUrls.length > 0 && publicUrls.every(({ protocol }) => protocol === 'https:');
  await api.register(cookie);
  await api.register(session, {
    secret: await sessionSecret(orm.em.fork()),
    cookieName: 'yellow-thread',
    store: createSessionStore(orm),
    saveUninitialized: false,
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      secure: isEncryptedOnly ? true : 'auto',
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    },
  });
  await api.register(csrf, { sessionPlugin: '@fastify/session' });
  await api.register(multipart, { limits: { fileSize: largestSheet, files: 1, fields: 0 } });
  api.decorateRequest('em');
  api.decorateRequest('account', null);
  api.decorateRequest('role', null);
  api.decorateRequest('within', readWithin);
  api.addHook('onRequest', async (request) => {
    request.em = orm.em.fork();
    await loadAccount(request);
  });
  api.addHook('onRequest', (request, reply, done) => {
    if (isRead(request)) return done();
    const begins = request.url.startsWith('/api/session') && request.method === 'POST';
    if (begins && isEncryptedOnly && request.protocol !== 'https')
      return done(problems.notEncrypted());
    // a token is kept in a session, and nobody has one before signing in: there the origin alone is checked
    if (request.account) return api.csrfProtection(request, reply, done);
    // signed out elsewhere: the token ended with the session, but the page is sent to the sign-in
    done(request.url.startsWith('/api/session') ? undefined : problems.notSignedIn());
  });
  api.addHook('preValidation', (request, _, done) => {
    const isJson = request.headers['content-type']?.startsWith('application/json');
    done(
      isJson && isTooDeep(request.body)
        ? problems.invalidRequest({ reason: 'too deep' })
        : undefined,
    );
  });
  noteExports(api);

  const events = openStudyEvents(orm.config.getClientUrl(), (error) =>
    api.log.error({ err: error }, 'no events from the database'),
  );
  api.addHook('onClose', () => events.close());

  peopleRoutes(api, threads, demo);
  auditRoutes(api);
  studyRoutes(api);
  openCopyRoute(api);
  streamRoutes(api, events);
  await api.register(async (scope) => {
    const inStudy = scope.withTypeProvider<ZodTypeProvider>();
    inStudy.addHook('onRequest', requireStudy);
    inStudy.addHook('preHandler', requireAssigned);
    memberRoutes(inStudy);
    respondentRoutes(inStudy);
    personalDataRoutes(inStudy);
    studyContentRoutes(inStudy);
    noteRoutes(inStudy);
    sheetRoutes(inStudy, threads, largestSheet);
    importRoutes(inStudy);
    jobRoutes(inStudy);
    lookRoutes(inStudy, threads);
    toneRoutes(inStudy, threads);
    saveCopyRoute(inStudy);
    mergeRoutes(inStudy);
    sentenceRoutes(inStudy, threads);
    assistantRoutes(inStudy, threads);
    codebookRoutes(inStudy, threads);
    codeMapRoutes(inStudy);
    codingRoutes(inStudy, threads);
    historyRoutes(inStudy);
    samplingRoutes(inStudy, threads);
    groupRoutes(inStudy);
    exchangeRoutes(inStudy, threads);
    learningRoutes(inStudy);
    reviewRoutes(inStudy);
    finishRoutes(inStudy);
    agreementRoutes(inStudy);
    reportRoutes(inStudy, threads);
    writeUpRoutes(inStudy);
    return Promise.resolve();
  });
}
