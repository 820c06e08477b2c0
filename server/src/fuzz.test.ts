import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { problemSchema } from '@yellow-thread/contract';
import { randomUUID } from 'node:crypto';
import { startServer, type Client, type TestServer } from '../test/app.js';
import { fuzzRequests, type OpenApi } from '../test/fuzz.js';
import { importStudy, uploadSheet } from '../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const SEED = Number(process.env['FUZZ_SEED'] ?? 20_261_130);
const EACH = Number(process.env['FUZZ_EACH'] ?? 16);

/** A study with something of most kinds in it, by the names of path parameters. */
async function makePlaces(): Promise<Record<string, string | number>> {
  const csv = 'id,home,Why?\n1,Tye,more boats\n2,Hask,dear\n3,Tye,late\n4,Hask,n/a\n5,Tye,boats\n';
  const study = await importStudy(client, csv);
  const { ids } = await study.ledger();
  const { codeId, id: mention } = await study.code(ids[0]!, { newCode: 'Boats' }, [0, 4]);
  await study.settle(ids[0]!);
  const [theme, note, group, bundle] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const post = <Body>(path: string, body: object) =>
    client.send<Body>('POST', `${study.base}${path}`, { body });
  await post('/themes', { id: theme, name: 'Water' });
  await post('/notes', { id: note, text: 'Hm', responseId: ids[0], start: null, end: null });
  await client.send('PUT', `${study.base}/bundles/${bundle}`, {
    body: { name: 'Sea', codeIds: [codeId] },
  });
  await client.send('PUT', `${study.base}/groups/${group}`, {
    body: { name: 'All', rule: { join: 'all', not: false, parts: [] } },
  });
  const sheet = await uploadSheet(client, study.id, 'more.csv', Buffer.from('id,Why?\n9,cold\n'));
  const [{ id: importId } = { id: 0 }] = await server.sql<{ id: number }>(
    'select max(id) as id from import',
  );
  const [{ id: variable } = { id: 0 }] = await server.sql<{ id: number }>(
    'select max(id) as id from variable',
  );
  const guest = await server.enter(`Guest of ${study.id}`);
  await post('/members', { name: `Guest of ${study.id}` });
  return {
    ...{ study: study.id, question: study.question, response: ids[0]!, respondent: 1 },
    ...{ code: codeId, theme, mention, note, group, bundle, sheet: sheet.id, variable },
    ...{ import: importId, job: 1, run: 1, member: guest.accountId, format: 'csv', key: 'a' },
  };
}

/** What takes away what other requests need. */
const takesAway = (operation: string) =>
  /^(?:remove|undo|redo|restore|merge|deal|leave|importSheet|takeCodeList|changeNoAnswers|themeToCode|codeToTheme|bringBack|givePassword)/u.test(
    operation,
  );

test('whatever is sent to any operation is answered by what the contract says or by a sentence', async () => {
  const { body: api } = await client.get<OpenApi>('/docs/json');
  // these end the session, or wait for what happens
  for (const path of ['/api/session', '/api/session/demo', '/api/events', '/api/password'])
    delete api.paths[path];
  let places = await makePlaces();
  const failures: unknown[] = [];
  const taken = new Set<string>();
  const operations = Object.entries(api.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  );
  for (const { path, method, operation } of operations) {
    const one = { ...api, paths: { [path]: { [method]: operation } } };
    for (const { operationId, url, body, ...request } of fuzzRequests(one, places, SEED, EACH)) {
      const reply = await client.send<unknown>(request.method, url.replace(/^\/api/u, ''), {
        ...(body !== null && {
          payload: body,
          headers: { 'content-type': 'application/json' },
        }),
      });
      if (reply.status < 400) taken.add(operationId);
      const isTold = reply.status < 400 || problemSchema.safeParse(reply.body).success;
      if (reply.status >= 500 || !isTold)
        failures.push({
          ...{ operationId, status: reply.status, url: url.slice(0, 300) },
          body: body?.slice(0, 600),
        });
    }
    if (takesAway(operation.operationId ?? '')) places = await makePlaces();
  }
  expect(failures).toEqual([]);
  // what is refused at the door alone would show nothing
  expect(taken.size).toBeGreaterThan(operations.length / 2);
}, 300_000);
