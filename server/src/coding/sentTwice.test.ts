import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { buildApp } from '../app.js';
import { openDatabase } from '../database/index.js';
import { createClient, startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let other: Awaited<ReturnType<typeof secondServer>>;
let client: Client;
async function secondServer() {
  const orm = await openDatabase(server.url, { migrate: false });
  const app = await buildApp({ orm, threads: server.threads, demo: false });
  return { app, close: () => app.close().then(() => orm.close()) };
}
beforeAll(async () => {
  server = await startServer();
  other = await secondServer();
  client = await server.enter('Rowan');
});
afterAll(async () => {
  await other.close();
  await server.stop();
});

test('the same save that reaches two servers at once is made once, and both say that it is', async () => {
  const study = await importStudy(client, 'id,Why?\n1,late\n2,dear\n');
  const [answer] = (await study.ledger()).ids;
  const twin = createClient(other.app, client.accountId);
  twin.continueAs(client);
  const sendBoth = async (method: 'POST' | 'PUT', path: string, body: object) => {
    const replies = await Promise.all(
      [client, twin].map((one) => one.send(method, `${study.base}${path}`, { body })),
    );
    return replies.map(({ status }) => status);
  };
  for (let round = 0; round < 12; round++) {
    const codeId = randomUUID();
    const mention = { id: randomUUID(), responseId: answer, codeId, start: null, end: null };
    const newCode = { id: codeId, name: `Code ${round}`, themeId: null };
    expect(await sendBoth('POST', '/mentions', { ...mention, newCode })).toEqual([200, 200]);
    const on = { responseId: answer, respondentId: null, codeId: null, start: null, end: null };
    const note = { id: randomUUID(), text: 'Hm', unsure: false, ...on };
    expect(await sendBoth('POST', '/notes', note)).toEqual([200, 200]);
    const settled = { settled: round % 2 === 0 };
    expect(await sendBoth('PUT', `/responses/${answer}/settlement`, settled)).toEqual([200, 200]);
  }
  const count = async (table: string) =>
    (await server.sql<{ n: number }>(`select count(*)::int as n from ${table}`))[0]!.n;
  expect([await count('mention'), await count('code'), await count('note')]).toEqual([12, 12, 12]);
});
