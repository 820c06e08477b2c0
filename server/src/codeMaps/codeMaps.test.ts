import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import type { CodeMaps, DrawnMap, MapChange } from '@yellow-thread/contract';
import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let answers: number[];
let fares: string;
let steps: string;
let map: string;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
beforeEach(async () => {
  study = await importStudy(client, 'id,Why?\n1,The fares are mad.\n2,fares and steps\n3,steps\n');
  answers = (await study.ledger()).ids;
  fares = (await study.code(answers[0]!, { newCode: 'Fares' }, [4, 9])).codeId;
  steps = (await study.code(answers[1]!, { newCode: 'Steps' })).codeId;
  map = await newMap('What drives what');
});
afterAll(() => server.stop());

const path = (id = map) => `${study.base}/maps/${id}`;
const newMap = async (name: string) => {
  const id = randomUUID();
  await client.send('PUT', path(id), { body: { name } });
  return id;
};
const read = async (by = client) => (await by.get<DrawnMap>(path())).body;
const change = (body: Partial<MapChange>, by = client) =>
  by.send<{ code?: string }>('POST', `${path()}/changes`, { body });
const node = (codeId: string, x = 0, y = 0) => ({
  ...{ id: randomUUID(), mapId: map, codeId, themeId: null, x, y },
});
const relation = (fromNode: string, toNode: string, label = 'leads to') => ({
  ...{ id: randomUUID(), mapId: map, fromNode, toNode, label, directed: true, note: '' },
});
const pin = (responseId: number, on: { nodeId?: string; relationId?: string }) => ({
  ...{ id: randomUUID(), mapId: map, nodeId: null, relationId: null, ...on, responseId },
  ...{ start: 4, end: 9 },
});

test('codes are laid out, joined and pinned; files say the same; gone with a code, and back with it', async () => {
  const [one, other] = [node(fares, 10, 20), node(steps, 300, 20)];
  const joined = relation(one.id, other.id, 'leads to <more>');
  const pinned = pin(answers[0]!, { relationId: joined.id });
  await change({ nodes: [one, other] });
  await change({ relations: [joined] });
  await change({ pins: [pinned] });
  const drawn = await read();
  expect(drawn.nodes).toHaveLength(2);
  expect(drawn.relations).toEqual([joined]);
  expect(drawn.pins).toEqual([{ ...pinned, questionId: study.question, text: 'fares' }]);

  const graph = (await client.get(`${path()}/files/graphml`)).text;
  new SaxesParser({ xmlns: true }).write(graph).close();
  expect(graph).toContain('directed="true"');
  expect(graph).toContain('leads to &lt;more&gt;');
  expect((await client.get(`${path()}/files/csv`)).text).toContain(
    'Fares,leads to <more>,Steps,from → to,,fares',
  );

  await client.send('DELETE', `${study.base}/codes/${steps}`);
  expect(await read()).toMatchObject({ nodes: [one], relations: [], pins: [] });
  await study.undo();
  expect(await read()).toEqual(drawn);

  // merged, its place is taken by the code that it was merged into
  const third = (await study.code(answers[2]!, { newCode: 'Stairs' })).codeId;
  await client.send('POST', `${study.base}/codes/${steps}/merge`, { body: { into: third } });
  expect((await read()).nodes.map(({ codeId }) => codeId).sort()).toEqual([fares, third].sort());

  // a theme made of codes, a code made a theme: both keep their place
  const theme = randomUUID();
  await client.send('POST', `${study.base}/themes`, { body: { id: theme, name: 'Access' } });
  await client.send('POST', `${study.base}/codes/${third}/place`, {
    body: { themeId: theme, before: null },
  });
  const place = { ...node(third, 5, 5), id: randomUUID(), codeId: null, themeId: theme };
  await change({ nodes: [place] });
  const beforeThat = await read();
  await client.send('POST', `${study.base}/themes/${theme}/code`);
  const asCode = (await read()).nodes.find(({ id }) => id === place.id)!;
  expect([asCode.themeId, asCode.codeId === null]).toEqual([null, false]);
  await study.undo();
  expect(await read()).toEqual(beforeThat);
  await change({ removed: [place.id] });

  await client.send('DELETE', path());
  expect((await client.get<CodeMaps>(`${study.base}/maps`)).body.maps).toEqual([]);
  await study.undo();
  expect((await read()).relations).toEqual([joined]);
});

test('whatever was done to a map is undone and done again, step by step', async () => {
  const nodes = [node(fares), node(steps)];
  const step = fc.oneof(
    fc.record({
      nodes: fc.tuple(fc.constantFrom(...nodes), fc.nat(500)).map(([one, x]) => [{ ...one, x }]),
    }),
    fc.constant(0).map(() => ({ nodes, relations: [relation(nodes[0]!.id, nodes[1]!.id)] })),
    fc.record({ removed: fc.constantFrom(...nodes).map(({ id }) => [id]) }),
    fc.constant(0).map(() => ({ nodes, pins: [pin(answers[1]!, { nodeId: nodes[1]!.id })] })),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 5 }), async (steps) => {
      const states = [await read()];
      for (const one of steps) {
        expect((await change(one)).status).toBe(200);
        const now = await read();
        // what changes nothing is no change
        if (JSON.stringify(now) !== JSON.stringify(states.at(-1))) states.push(now);
      }
      for (const state of states.slice(0, -1).toReversed()) {
        await study.undo();
        expect(await read()).toEqual(state);
      }
      for (const state of states.slice(1)) {
        await client.send('POST', `${study.base}/redo`);
        expect(await read()).toEqual(state);
      }
    }),
    { numRuns: 15 },
  );
});

test('two people on one map keep what both do; what would hang on nothing is refused', async () => {
  const other = await server.enter('Tansy');
  await letIn(client, study.id, other, 'researcher');
  const [one, two] = [node(fares), node(steps)];
  await change({ nodes: [one, two] });
  const joined = relation(one.id, two.id);
  const [moved, put] = await Promise.all([
    change({ nodes: [{ ...one, x: 77 }] }),
    change({ relations: [joined] }, other),
  ]);
  expect([moved.status, put.status]).toEqual([200, 200]);
  expect(await read(other)).toMatchObject({ relations: [joined] });
  expect((await read()).nodes.find(({ id }) => id === one.id)!.x).toBe(77);
  // their relation hangs on it: the moving is undone, putting it there is not
  await study.undo();
  const refused = await client.send<{ code: string }>('POST', `${study.base}/undo`);
  expect([refused.status, refused.body.code]).toEqual([409, 'undo_crosses']);
  expect((await read()).relations).toEqual([joined]);

  await change({ removed: [two.id] }, other);
  expect((await read()).relations).toEqual([]);
  const late = await change({ relations: [relation(one.id, two.id)] });
  expect([late.status, late.body.code]).toEqual([409, 'changed_meanwhile']);
  // a code stands on a map once
  expect((await change({ nodes: [node(fares)] })).status).toBe(409);

  const elsewhere = await importStudy(other, 'id,Why?\n1,steps\n');
  const [foreign] = (await elsewhere.ledger()).ids;
  const theirs = (await elsewhere.code(foreign!, { newCode: 'Theirs' })).codeId;
  expect((await change({ nodes: [node(theirs)] }, other)).status).toBe(404);
  expect((await change({ pins: [pin(foreign!, { nodeId: one.id })] }, other)).status).toBe(404);
  expect((await other.get(`${elsewhere.base}/maps/${map}`)).status).toBe(404);
  const renamed = await other.send<{ code: string }>('PUT', `${elsewhere.base}/maps/${map}`, {
    body: { name: 'Mine' },
  });
  expect(renamed.status).toBe(404);
  await newMap('Other');
  const taken = await client.send<{ code: string }>('PUT', path(), { body: { name: 'OTHER' } });
  expect([taken.status, taken.body.code]).toEqual([409, 'name_taken']);
});
