import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { problemSchema } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../test/app.js';
import { fuzzRequests, type OpenApi } from '../test/fuzz.js';
import { makePlaces } from '../test/places.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const SEED = Number(process.env['FUZZ_SEED'] ?? 20_261_130);
const EACH = Number(process.env['FUZZ_EACH'] ?? 16);

/** What removes what other requests need. */
const takesAway = (operation: string) =>
  /^(?:remove|undo|redo|restore|merge|deal|cancelSheet|importSheet|importCodeList|changeNoAnswers|themeToCode|codeToTheme|includeWord|givePassword)/u.test(
    operation,
  );

test('whatever is sent to any operation is answered by what the contract says or by a sentence', async () => {
  const { body: api } = await client.get<OpenApi>('/docs/json');
  // these end the session, or wait for what happens
  for (const path of ['/api/session', '/api/session/demo', '/api/events', '/api/password'])
    delete api.paths[path];
  let places = await makePlaces(server, client, 'boats');
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
          operationId,
          status: reply.status,
          url: url.slice(0, 300),
          body: body?.slice(0, 600),
        });
    }
    if (takesAway(operation.operationId ?? '')) places = await makePlaces(server, client, 'boats');
  }
  // rules within each other, which are checked by going down into them
  for (const depth of [30, 1000, 8000]) {
    const rule = `${'{"is":"all_of","rules":['.repeat(depth)}${']}'.repeat(depth)}`;
    const payload = `{"name":"Deep","description":"","rule":${rule}}`;
    const { status } = await client.send(
      'PUT',
      `/studies/${places['study']}/groups/${places['group']}`,
      {
        payload,
        headers: { 'content-type': 'application/json' },
      },
    );
    if (status >= 500) failures.push({ operationId: 'putGroup', depth, status });
  }
  expect(failures).toEqual([]);
  // what is refused at the door alone would show nothing
  expect(taken.size).toBeGreaterThan(operations.length / 2);
}, 300_000);
