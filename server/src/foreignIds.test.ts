import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startServer, type Client, type TestServer } from '../test/app.js';
import { fuzzRequests, type OpenApi } from '../test/fuzz.js';
import { makePlaces } from '../test/places.js';

let server: TestServer;
let owner: Client;
let stranger: Client;
beforeAll(async () => {
  server = await startServer();
  owner = await server.enter('Rowan');
  stranger = await server.enter('Ash');
});
afterAll(() => server.stop());

const MARK = 'quetzal';
const EACH = 6;

/** All rows of a study's tables, and of what depends on them. */
async function everythingOf(study: number): Promise<Record<string, unknown>> {
  const tables = await server.sql<{ name: string; by: string }>(
    `select table_name as name, min(column_name) as by from information_schema.columns
     where table_schema = 'public' and column_name in ('study_id', 'response_id', 'respondent_id')
       and table_name not in ('job', 'audit') group by 1`,
  );
  const of = {
    study_id: 'study_id = $',
    respondent_id: 'respondent_id in (select id from respondent where study_id = $)',
    response_id: `response_id in (select r.id from response r
      join question q on q.id = r.question_id where q.study_id = $)`,
  };
  const found: [string, unknown][] = [];
  for (const { name, by } of tables) {
    const where = of[by as keyof typeof of].replace('$', String(study));
    found.push([
      name,
      await server.sql(`select to_jsonb(t)::text as row from ${name} t where ${where} order by 1`),
    ]);
  }
  return Object.fromEntries(found);
}

test('ids of a study that is not theirs get nobody anywhere, in whichever parameter they stand', async () => {
  const theirs = await makePlaces(server, owner, MARK);
  const before = await everythingOf(Number(theirs['study']));
  expect(JSON.stringify(before)).toContain(MARK);
  let own = await makePlaces(server, stranger, 'boats');
  const { body: api } = await stranger.get<OpenApi>('/docs/json');
  /** Under which names ids stand in queries and bodies. */
  const ids = (places: typeof own) => ({
    id: undefined,
    codeId: places['code'],
    codeIds: [places['code']],
    code: places['code'],
    codes: [places['code']],
    mapId: places['map'],
    themeId: places['theme'],
    theme: places['theme'],
    responseId: places['response'],
    respondentId: places['respondent'],
    like: places['response'],
    ids: places['response'],
    questionId: places['question'],
    question: places['question'],
    questions: [places['question']],
    variableId: places['variable'],
    by: places['variable'],
    group: places['group'],
    groupId: places['group'],
    mention: places['mention'],
    mentionIds: [places['mention']],
    into: places['code'],
    to: undefined,
    runId: places['run'],
    after: places['response'],
    bundleId: places['bundle'],
    variable: places['variable'],
  });
  const leaks: unknown[] = [];
  let sent = 0;
  for (const [path, methods] of Object.entries(api.paths)) {
    if (!path.includes('{study}')) continue;
    const parameters = [...path.matchAll(/\{(\w+)\}/gu)].map(([, name]) => name!);
    for (const [method, operation] of Object.entries(methods)) {
      const one = { ...api, paths: { [path]: { [method]: operation } } };
      // one of the path's parameters foreign at a time, then what stands in the query and the body
      const foreign = parameters.filter((name) => name !== 'study');
      const tries = [
        ...foreign.map((name) => [{ ...own, [name]: theirs[name] ?? 1 }, ids(own)] as const),
        [own, ids(theirs)] as const,
      ];
      for (const [places, named] of tries)
        for (const request of fuzzRequests(one, places, sent, EACH, named)) {
          const reply = await stranger.send(request.method, request.url.replace(/^\/api/u, ''), {
            ...(request.body !== null && {
              payload: request.body,
              headers: { 'content-type': 'application/json' },
            }),
          });
          sent += 1;
          if (reply.status >= 500 || reply.text.includes(MARK))
            leaks.push({ ...request, status: reply.status });
        }
      if (method === 'delete' || /undo|merge|restore|deal/u.test(path))
        own = await makePlaces(server, stranger, 'boats');
    }
  }
  expect(leaks).toEqual([]);
  expect(await everythingOf(Number(theirs['study']))).toEqual(before);
  expect(sent).toBeGreaterThan(1000);
}, 300_000);
