import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { AddressInfo } from 'node:net';
import type { StudyEvent } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let origin: string;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  study = await importStudy(client, 'id,Why?\n1,late\n2,dear\n');
  await server.app.listen({ port: 0, host: '127.0.0.1' });
  origin = `http://127.0.0.1:${(server.app.server.address() as AddressInfo).port}`;
});
afterAll(() => server.stop());

/** What is heard of a study, one event after the other. */
async function* listen(person: Client, signal: AbortSignal): AsyncGenerator<StudyEvent> {
  const reply = await fetch(`${origin}/api/events`, {
    headers: { cookie: person.cookie() },
    signal,
  });
  let text = '';
  const decoder = new TextDecoder();
  for await (const piece of reply.body as unknown as AsyncIterable<Uint8Array>) {
    text += decoder.decode(piece);
    for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
      const line = text.slice(0, end);
      text = text.slice(end + 2);
      // the caller names the shape; the server has checked it against the contract
      if (line.startsWith('data: ')) yield JSON.parse(line.slice(6)) as StudyEvent;
      else yield { study: 0, tab: 'opened', by: 0, tables: [], responses: null };
    }
  }
}

test('whoever has the study open hears at once what was changed, undone and redone', async () => {
  const stop = new AbortController();
  const events = listen(client, stop.signal);
  expect((await events.next()).value).toMatchObject({ tab: 'opened' });
  const [first] = (await study.ledger()).ids;
  await study.code(first!, { newCode: 'Late' });
  const heard = { study: study.id, tab: null, by: client.accountId, responses: [first] };
  expect((await events.next()).value).toEqual({ ...heard, tables: ['code', 'mention'] });
  await study.undo();
  expect((await events.next()).value).toEqual({ ...heard, tables: ['code', 'mention'] });
  await client.send('PUT', `${study.base}/responses/${first}/settlement`, {
    body: { settled: true },
    headers: { tab: 'mine' },
  });
  expect((await events.next()).value).toEqual({ ...heard, tab: 'mine', tables: ['settlement'] });
  stop.abort();
});

test('whoever was added hears, nobody else does, and whoever is removed or signed out no longer', async () => {
  const guest = await server.enter('Guest');
  const stop = new AbortController();
  const events = listen(guest, stop.signal);
  await events.next();
  const [first] = (await study.ledger()).ids;
  await study.settle(first!);
  const members = `${study.base}/members`;
  await letIn(client, study.id, guest);
  // nothing of what came before
  expect((await events.next()).value).toMatchObject({ study: study.id, tables: ['membership'] });
  await study.settle(first!, false);
  expect((await events.next()).value).toMatchObject({ tables: ['settlement'] });
  await client.send('DELETE', `${members}/${guest.accountId}`);
  await study.settle(first!);
  const own = await guest.send<{ id: number }>('POST', '/studies', {
    body: { name: 'Own', purpose: '' },
  });
  // nothing of the study that they were removed from
  expect((await events.next()).value).toMatchObject({
    study: own.body.id,
    tables: ['membership'],
  });
  await guest.send('DELETE', '/session');
  expect((await events.next()).done).toBe(true);
});

test('streams beyond what a person has pages are refused', async () => {
  const many = await server.enter('Many');
  const stop = new AbortController();
  const open = () =>
    fetch(`${origin}/api/events`, { headers: { cookie: many.cookie() }, signal: stop.signal });
  const replies = [];
  for (let n = 0; n < 21; n++) replies.push((await open()).status);
  expect(replies.slice(0, 20)).toEqual(Array(20).fill(200));
  expect(replies[20]).toBe(429);
  stop.abort();
});

test('streams that are left before they are answered take nobody’s place', async () => {
  const hasty = await server.enter('Hasty');
  const headers = { cookie: hasty.cookie() };
  for (let n = 0; n < 40; n++) {
    const stop = new AbortController();
    const asked = fetch(`${origin}/api/events`, { headers, signal: stop.signal });
    // as soon as it is on its way, and at any moment after that
    for (let turn = 0; turn < n % 8; turn++) await new Promise((next) => setImmediate(next));
    stop.abort();
    await asked.then(
      () => null,
      () => null,
    );
  }
  const stay = new AbortController();
  let status = 429;
  while (status === 429)
    ({ status } = await fetch(`${origin}/api/events`, { headers, signal: stay.signal }));
  const more = await Promise.all(
    Array.from({ length: 19 }, () =>
      fetch(`${origin}/api/events`, { headers, signal: stay.signal }),
    ),
  );
  expect(more.map((reply) => reply.status)).toEqual(Array(19).fill(200));
  stay.abort();
});

test('a database that drops every connection is found again, with all that it acknowledged', async () => {
  const stop = new AbortController();
  const events = listen(client, stop.signal);
  await events.next();
  const [first, second] = (await study.ledger()).ids;
  await study.settle(first!, false);
  expect((await events.next()).value).toMatchObject({ tables: ['settlement'] });
  await server.sql(
    `select pg_terminate_backend(pid) from pg_stat_activity
     where datname = current_database() and pid <> pg_backend_pid()`,
  );
  // anything may have happened while nothing could be heard
  expect((await events.next()).value).toEqual({
    study: 0,
    tab: null,
    by: 0,
    tables: [],
    responses: null,
  });
  expect((await study.ledger('show=open')).ids).toEqual([first, second]);
  await study.settle(second!);
  expect((await events.next()).value).toMatchObject({ responses: [second] });
  stop.abort();
});
