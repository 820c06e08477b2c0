import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import pg from 'pg';
import { startServer, type TestServer } from '../test/app.js';
import { importStudy } from '../test/study.js';
import { closeInOrder } from './app.js';

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

test('who sends a request too slowly does not keep a connection for ever', () => {
  const { headersTimeout, requestTimeout, timeout } = server.app.server;
  expect([headersTimeout, requestTimeout, timeout]).toEqual([20_000, 900_000, 120_000]);
});

test('a server that is told to stop answers what it is doing, ends streams, and takes nothing new', async () => {
  const client = await server.enter('Rowan');
  const study = await importStudy(client, 'id,Why?\n1,late\n');
  const [answer] = (await study.ledger()).ids;
  await server.app.listen({ port: 0, host: '127.0.0.1' });
  const origin = `http://127.0.0.1:${(server.app.server.address() as AddressInfo).port}`;
  const { csrfToken } = (await client.get<{ csrfToken: string }>('/session')).body;
  const headers = { cookie: client.cookie(), 'csrf-token': csrfToken };
  const stream = await fetch(`${origin}/api/events`, { headers });

  // a save that waits in its midst for a row which somebody else holds
  const holder = new pg.Client(server.url);
  await holder.connect();
  await holder.query('begin');
  await holder.query('select from response where id = $1 for update', [answer]);
  const save = fetch(`${origin}/api${study.base}/responses/${answer}/settlement`, {
    method: 'PUT',
    headers: { ...headers, 'content-type': 'application/json' },
    body: '{"settled":true}',
  });
  const isWaiting = async () =>
    (
      await holder.query<{ n: number }>(
        `select count(*)::int as n from pg_stat_activity where wait_event_type = 'Lock'
         and datname = current_database()`,
      )
    ).rows[0]!.n > 0;
  while (!(await isWaiting())) await new Promise((resolve) => setImmediate(resolve));

  const closed = closeInOrder(server.app);
  expect(await stream.text()).toContain(': here');
  await holder.query('commit');
  await holder.end();
  expect((await save).status).toBe(200);
  await closed;
  await expect(fetch(`${origin}/api/session`)).rejects.toThrow();
});
