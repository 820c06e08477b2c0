import { expect, test } from '@jest/globals';
import Fastify from 'fastify';
import { watchEventLoop, workedMs, type Hold } from './eventLoopWatch.js';
import type { App } from './app.types.js';

const LONGEST_MS = 200;

test('what holds the event loop is told with the request; waiting holds nothing', async () => {
  // only what the watch needs of an app
  const app = Fastify() as unknown as App;
  const holds: Hold[] = [];
  watchEventLoop(app, (hold) => holds.push(hold), LONGEST_MS);
  const looks = () => new Promise((resolve) => setTimeout(resolve, 50));
  app.get('/slow', async () => {
    await new Promise((resolve) => setTimeout(resolve, 2 * LONGEST_MS));
    return 'rested';
  });
  app.get('/busy', () => {
    // of this thread alone: others of the process may be at work too
    const before = workedMs();
    while (workedMs() - before < 3 * LONGEST_MS);
    return 'worked';
  });
  await app.listen({ host: '127.0.0.1', port: 0 });
  await app.inject({ url: '/slow' });
  await looks();
  holds.length = 0;
  await app.inject({ url: '/slow' });
  await looks();
  expect(holds).toEqual([]);
  await app.inject({ url: '/busy' });
  while (holds.length === 0) await looks();
  expect(holds[0]!.ms).toBeGreaterThan(LONGEST_MS);
  expect(holds[0]!.requests).toContain('GET /busy');
  await app.close();
});
