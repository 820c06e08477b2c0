import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import type { FastifyRequest } from 'fastify';
import type { App } from './app.types.js';

/** How long one thing may keep everything else waiting. */
export const LONGEST_HOLD_MS = 100;
const TICK_MS = 10;

export interface Hold {
  ms: number;
  /** Method and route of the requests in progress: one of them may have been the one. */
  requests: string[];
}

/**
 * Watches whether anything holds the server's event loop, for development and tests. What counts is the time that
 * this thread itself was at work: on a busy machine it is late without being at fault.
 *
 * @param onHold called for everything longer than `longest`, in milliseconds
 */
export function watchEventLoop(
  app: App,
  onHold: (hold: Hold) => void,
  longest = LONGEST_HOLD_MS,
): void {
  const underWay = new Set<FastifyRequest>();
  app.addHook('onRequest', (request, _, done) => {
    underWay.add(request);
    done();
  });
  // a request that has just been answered may still have been the one: it is forgotten at the next tick
  let answered: FastifyRequest[] = [];
  app.addHook('onResponse', (request, _, done) => {
    answered.push(request);
    done();
  });
  let worked = 0;
  let tick: NodeJS.Timeout;
  // while the server still starts, nobody waits for it
  app.addHook('onListen', (done) => {
    worked = workedMs();
    tick = setTimeout(look, TICK_MS);
    done();
  });
  function look() {
    const before = worked;
    worked = workedMs();
    if (worked - before > longest)
      onHold({ ms: worked - before, requests: [...underWay].map(nameOf) });
    for (const request of answered) underWay.delete(request);
    answered = [];
    tick = setTimeout(look, TICK_MS);
  }
  app.addHook('onClose', (_, done) => {
    clearTimeout(tick);
    done();
  });
}

const nameOf = ({ method, routeOptions, url }: FastifyRequest) =>
  `${method} ${routeOptions.url ?? url.split('?')[0]!}`;

/** Milliseconds for which this thread has been at work: of the processor where Linux tells, otherwise of the loop. */
export function workedMs(): number {
  try {
    const [onProcessor] = readFileSync('/proc/thread-self/schedstat', 'utf8').split(' ');
    return Number(onProcessor) / 1e6;
  } catch {
    return performance.eventLoopUtilization().active;
  }
}
