import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import compress from '@fastify/compress';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import serveFiles from '@fastify/static';
import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import Fastify, { type FastifyServerOptions } from 'fastify';
import {
  jsonSchemaTransform,
  jsonSchemaTransformObject,
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import { serveApi } from './api.js';
import type { AppOptions } from './appOptions.js';
import { watchEventLoop } from './eventLoopWatch.js';
import { replyWithProblems, sendProblem } from './errors.js';
import { healthRoute } from './health.js';
import { guardHosts } from './hosts.js';
import { withoutValues } from './logging.js';
import { measureRequests } from './metrics.js';
import { problems } from './wording/problems.js';
import type { App } from './app.types.js';

/** Requests are logged by method, path and status: never by body, query or header. */
const logging = {
  serializers: {
    req: (request) => ({ method: request.method, path: request.url?.split('?')[0] }),
    err: withoutValues,
  },
} satisfies FastifyServerOptions['logger'];

/** How long a request may take to come in whole: a large sheet over a slow line does. */
const REQUEST_MS = 15 * 60_000;
/** How long its head alone may take, and how long nothing at all may come or go on a connection. */
const HEADERS_MS = 20_000;
const SILENCE_MS = 2 * 60_000;

const { version } = JSON.parse(
  readFileSync(new URL('../package.json', import.meta.url), 'utf8'),
) as { version: string };

/** Puts the HTTP API and the web app together. */
export async function buildApp(options: AppOptions): Promise<App> {
  const { trustProxy = [], publicUrls = [], logLevel = 'info' } = options;
  const app: App = Fastify({
    logger:
      options.log && logLevel !== 'off'
        ? { ...logging, level: logLevel, stream: options.log }
        : false,
    bodyLimit: 1024 * 1024,
    trustProxy: trustProxy.length > 0 ? trustProxy : false,
    requestTimeout: REQUEST_MS,
    connectionTimeout: SILENCE_MS,
    http: { headersTimeout: HEADERS_MS },
    // an address that cannot be one
    frameworkErrors: (_error, _request, reply) => {
      void sendProblem(reply, problems.notFound('page'));
    },
    // what is being answered is answered first: see `closeInOrder`
    forceCloseConnections: 'idle',
    return503OnClosing: false,
  }).withTypeProvider<ZodTypeProvider>();
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  replyWithProblems(app, options.onUndeclaredProblem);
  guardHosts(app, publicUrls);
  if (options.watchEventLoop)
    watchEventLoop(app, (hold) => app.log.warn(hold, 'the event loop was held'));

  await app.register(swagger, {
    openapi: { openapi: '3.1.0', info: { title: 'Yellow Thread', version } },
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
    strictTransportSecurity: publicUrls.some(({ protocol }) => protocol === 'https:'),
  });
  await app.register(rateLimit, { global: false });
  // most of what is to be gained, in a third of the time
  await app.register(compress, { zlibOptions: { level: 1 } });

  healthRoute(app, options);
  if (options.metrics) measureRequests(app, options);
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

/** How long requests in progress may still take when the server stops. */
const DRAIN_MS = 10_000;

/** Accepts no new requests, finishes those in progress, and then closes what is left. */
export async function closeInOrder(app: App): Promise<void> {
  const cut = setTimeout(() => app.server.closeAllConnections(), DRAIN_MS);
  await app.close();
  clearTimeout(cut);
}

/** Folder of the built web app, from the source as from the build. */
export const builtWeb = fileURLToPath(new URL('../../web/dist', import.meta.url));
