import { fileURLToPath } from 'node:url';
import compress from '@fastify/compress';
import cookie from '@fastify/cookie';
import csrf from '@fastify/csrf-protection';
import helmet from '@fastify/helmet';
import multipart from '@fastify/multipart';
import rateLimit from '@fastify/rate-limit';
import session from '@fastify/session';
import serveFiles from '@fastify/static';
import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import type { MikroORM } from '@mikro-orm/postgresql';
import Fastify, { type FastifyError, type FastifyServerOptions } from 'fastify';
import {
  hasZodFastifySchemaValidationErrors,
  jsonSchemaTransform,
  jsonSchemaTransformObject,
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import { agreementRoutes } from './agreement/index.js';
import { codebookRoutes } from './codebook/index.js';
import { codingRoutes, historyRoutes, openStudyEvents } from './coding/index.js';
import { isBusy, isConnectionLost } from './database/index.js';
import { exchangeRoutes } from './exchange/index.js';
import { groupRoutes, readWithin } from './groups/index.js';
import { healthRoute } from './health.js';
import { jobRoutes, type Threads } from './jobs/index.js';
import { learningRoutes } from './learning/index.js';
import { lookRoutes } from './look/index.js';
import {
  createSessionStore,
  loadAccount,
  memberRoutes,
  peopleRoutes,
  requireStudy,
  SESSION_DAYS,
  sessionSecret,
} from './people/index.js';
import { withoutValues } from './logging.js';
import { Problem, problems } from './problems.js';
import { reportRoutes, writeUpRoutes } from './report/index.js';
import { finishRoutes, reviewRoutes } from './review/index.js';
import type { App } from './routeScope.js';
import { samplingRoutes } from './sampling/index.js';
import { LARGEST_SHEET, sheetRoutes } from './sheet/index.js';
import { backgroundRoutes, studyRoutes } from './study/index.js';

export interface AppOptions {
  orm: MikroORM;
  threads: Threads;
  demoOffered: boolean;
  /** When each runner of this server last reached the database; none where others do the jobs. */
  beats?: () => (Date | null)[];
  /** Largest file that may be uploaded, in bytes. */
  largestSheet?: number;
  /** Folder of the built web app; left out in tests of the API alone. */
  web?: string;
  /** Where log lines go; left out, nothing is logged. */
  log?: { write: (line: string) => void };
}

/** Requests are logged by method, path and status: never by body, query or header. */
const logging = {
  level: 'info',
  serializers: {
    req: (request) => ({ method: request.method, path: request.url?.split('?')[0] }),
    err: withoutValues,
  },
} satisfies FastifyServerOptions['logger'];

/** Puts the HTTP API and the web app together. */
export async function buildApp(options: AppOptions): Promise<App> {
  const app: App = Fastify({
    logger: options.log ? { ...logging, stream: options.log } : false,
    bodyLimit: 1024 * 1024,
    forceCloseConnections: true,
  }).withTypeProvider<ZodTypeProvider>();
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  replyWithProblems(app);

  await app.register(swagger, {
    openapi: { openapi: '3.1.0', info: { title: 'Yellow Thread', version: '0.1.0' } },
    transform: jsonSchemaTransform,
    transformObject: jsonSchemaTransformObject,
  });
  await app.register(swaggerUi, { routePrefix: '/api/docs' });
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // Radix and the virtual lists place things by inline styles
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        // on loopback the app is served without TLS
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  });
  await app.register(rateLimit, { global: false });
  // most of what is to be gained, in a third of the time
  await app.register(compress, { zlibOptions: { level: 1 } });

  healthRoute(app, options.orm, options.beats ?? (() => []));
  // the files of the web app are anybody's: who asks for one is not looked up
  await app.register((scope) => serveApi(scope.withTypeProvider<ZodTypeProvider>(), options));

  if (options.web)
    await app.register(serveFiles, {
      root: options.web,
      wildcard: false,
      setHeaders: (reply, path) => {
        reply.header(
          'Cache-Control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
      },
    });
  app.setNotFoundHandler((request, reply) => {
    // a page of the app has no dot in its path: what has one is a file that is not there
    if (options.web && request.method === 'GET' && !/^\/api\/|\./u.test(request.url.split('?')[0]!))
      return reply.sendFile('index.html');
    throw problems.notFound('page');
  });
  await app.ready();
  return app;
}

/** Everything below `/api`: each request is looked up by its session, and by the study that it is about. */
async function serveApi(
  api: App,
  { orm, threads, demoOffered, largestSheet = LARGEST_SHEET }: AppOptions,
): Promise<void> {
  await api.register(cookie);
  await api.register(session, {
    secret: await sessionSecret(orm.em.fork()),
    cookieName: 'yellow-thread',
    store: createSessionStore(orm),
    saveUninitialized: false,
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      secure: 'auto',
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    },
  });
  await api.register(csrf, { sessionPlugin: '@fastify/session' });
  await api.register(multipart, { limits: { fileSize: largestSheet, files: 1, fields: 0 } });
  api.decorateRequest('em');
  api.decorateRequest('account', null);
  api.decorateRequest('within', readWithin);
  api.addHook('onRequest', async (request) => {
    request.em = orm.em.fork();
    await loadAccount(request);
  });
  api.addHook('onRequest', (request, reply, done) => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) done();
    // signed out elsewhere: the token went with the session, but the page is led to the door
    else if (!request.account && !request.url.startsWith('/api/session'))
      done(problems.notSignedIn());
    else api.csrfProtection(request, reply, done);
  });

  const events = openStudyEvents(orm.config.getClientUrl(), (error) =>
    api.log.error({ err: error }, 'no events from the database'),
  );
  api.addHook('onClose', () => events.close());

  peopleRoutes(api, demoOffered);
  studyRoutes(api);
  await api.register(async (scope) => {
    const inStudy = scope.withTypeProvider<ZodTypeProvider>();
    inStudy.addHook('onRequest', requireStudy);
    memberRoutes(inStudy);
    backgroundRoutes(inStudy);
    sheetRoutes(inStudy, threads, largestSheet);
    jobRoutes(inStudy);
    lookRoutes(inStudy, threads);
    codebookRoutes(inStudy);
    codingRoutes(inStudy, threads);
    historyRoutes(inStudy, events);
    samplingRoutes(inStudy);
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

/** Folder of the built web app, from the source as from the build. */
export const builtWeb = fileURLToPath(new URL('../../web/dist', import.meta.url));

/** Every error leaves in the one shape; what was not meant for people is logged and replaced. */
function replyWithProblems(app: App): void {
  app.setErrorHandler((error: FastifyError | Problem, request, reply) => {
    const problem = asProblem(error);
    // a message of its own: pino would take the error's, which may quote what was written
    if (problem.status >= 500) request.log.error({ err: error }, 'unexpected error');
    return reply.code(problem.status).send({
      code: problem.code,
      sentence: problem.message,
      ...(problem.details && { details: problem.details }),
    });
  });
}

function asProblem(error: FastifyError | Problem): Problem {
  if (error instanceof Problem) return error;
  if (isConnectionLost(error)) return problems.databaseAway();
  if (isBusy(error)) return problems.busy();
  if (hasZodFastifySchemaValidationErrors(error))
    return problems.invalidRequest({
      in: error.validationContext,
      fields: error.validation.map(({ instancePath, message }) => ({ at: instancePath, message })),
    });
  if (error.code === 'FST_CSRF_INVALID_TOKEN' || error.code === 'FST_CSRF_MISSING_SECRET')
    return new Problem(403, 'stale_page', 'This page is out of date: reload it, then try again.');
  if (error.statusCode === 429)
    return new Problem(429, 'too_many_tries', 'Too many tries: wait a minute, then try again.');
  if (error.statusCode !== undefined && error.statusCode < 500)
    return problems.invalidRequest({ reason: error.code });
  return problems.unexpected();
}
