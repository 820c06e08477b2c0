import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { AppOptions } from './appOptions.js';
import type { App } from './app.types.js';
import { route } from './route.js';
import { api } from '@yellow-thread/contract';

/** Offers figures of this server in the OpenMetrics text format: times by route and status, memory, event loop. */
export function measureRequests(app: App, { beats = () => [] }: Pick<AppOptions, 'beats'>): void {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const seconds = new Histogram({
    name: 'http_request_duration_seconds',
    help: 'How long requests took, by method, route and status.',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30],
    registers: [registry],
  });
  new Gauge({
    name: 'job_runner_silence_seconds',
    help: 'How long ago the job runner that was silent longest reached the database.',
    registers: [registry],
    collect() {
      const times = beats().map((beat) => (beat ? (Date.now() - beat.getTime()) / 1000 : Infinity));
      this.set(Math.max(0, ...times));
    },
  });
  app.addHook('onResponse', (request, reply, done) => {
    const route = request.routeOptions.url ?? 'none';
    seconds.observe(
      { method: request.method, route, status: reply.statusCode },
      reply.elapsedTime / 1000,
    );
    done();
  });
  route(app, api.getMetrics, async (_, reply) =>
    reply.type(registry.contentType).send(await registry.metrics()),
  );
}
