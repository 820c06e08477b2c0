import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ListedStudy, Membership } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { makePlaces } from '../../test/places.js';
import { importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let rowan: Client;
beforeAll(async () => {
  server = await startServer();
  rowan = await server.enter('Rowan');
});
afterAll(() => server.stop());

const list = async (client: Client) =>
  (await client.get<{ studies: ListedStudy[] }>('/studies')).body.studies;
const stopAt = (client: Client, study: number, place: string) =>
  client.send('PATCH', `/studies/${study}/membership`, { body: { place } });
const membership = async (client: Client, study: number) =>
  (await client.get<Membership>(`/studies/${study}/membership`)).body;

test('the list says how far each question is, who else is in it, and where each person stopped', async () => {
  const first = await importStudy(rowan, 'id,Why?\n1,too late\n2,too dear\n3,n/a\n');
  const second = await importStudy(rowan, 'id,Why?\n1,wet\n');
  const hazel = await server.enter('Hazel');
  await letIn(rowan, first.id, hazel);
  await first.settle((await first.ledger()).ids[0]!);
  expect((await list(rowan)).map(({ id }) => id)).toEqual([second.id, first.id]);
  const place = `questions/${first.question}/report?by=3&cells=%7B%7D`;
  expect((await stopAt(rowan, first.id, place)).status).toBe(200);
  expect(await list(rowan)).toMatchObject([
    {
      id: first.id,
      team: ['Hazel'],
      isArchived: false,
      questions: [{ label: 'Why?', answered: 2, settled: 1 }],
    },
    { id: second.id, team: [], openedAt: null },
  ]);
  expect(await list(hazel)).toMatchObject([{ team: ['Rowan'], openedAt: null }]);
  expect(await membership(rowan, first.id)).toMatchObject({ place, hidesNextSteps: false });
  expect(await membership(hazel, first.id)).toMatchObject({ place: null });
  for (const other of ['/elsewhere', '//example.org', 'look\\', 'a b', ''])
    expect((await stopAt(rowan, first.id, other)).status).toBe(400);
  expect((await stopAt(hazel, second.id, 'look')).status).toBe(404);
});

test('who is asked for a second reading is told of it until they are through', async () => {
  const study = await importStudy(rowan, 'id,Why?\n1,too late\n');
  const { ids } = await study.ledger();
  await study.settle(ids[0]!);
  const sorrel = await server.enter('Sorrel');
  await letIn(rowan, study.id, sorrel, 'researcher');
  const reading = randomUUID();
  const readings = `${study.base}/questions/${study.question}/readings`;
  const body = { id: reading, readerId: sorrel.accountId, size: 5, like: null };
  expect((await rowan.send('POST', readings, { body })).status).toBe(200);
  expect((await membership(sorrel, study.id)).readings).toEqual([
    { id: reading, questionId: study.question, left: 1 },
  ]);
  expect((await membership(rowan, study.id)).readings).toEqual([]);
  await sorrel.send('PUT', `${readings}/${reading}/answers`, {
    body: { responseId: ids[0]!, codes: [] },
  });
  expect((await membership(sorrel, study.id)).readings).toEqual([]);
});

test('an archived study is kept, and marked for everybody', async () => {
  const study = await importStudy(rowan, 'id,Why?\n1,too late\n');
  const archive = (isArchived: boolean) =>
    rowan.send('PUT', `${study.base}/archived`, { body: { isArchived } });
  const isArchived = async () => (await list(rowan)).find(({ id }) => id === study.id)!.isArchived;
  expect((await archive(true)).status).toBe(200);
  expect(await isArchived()).toBe(true);
  expect((await rowan.get(study.base)).status).toBe(200);
  await archive(false);
  expect(await isArchived()).toBe(false);
});

/** How many rows each table has, but for what is kept of people and of the database itself. */
async function countRows() {
  const kept = ['account', 'audit', 'session', 'written', 'sign_in_try', 'mikro_orm_migrations'];
  const tables = await server.sql<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = 'public' order by 1`,
  );
  const counts: Record<string, number> = {};
  for (const { name } of tables)
    if (!kept.includes(name))
      counts[name] = (
        await server.sql<{ n: number }>(`select count(*)::int as n from ${name}`)
      )[0]!.n;
  return counts;
}

test('a deleted study leaves nothing behind, whatever was in it; no other loses anything', async () => {
  await makePlaces(server, rowan, 'kept');
  const before = await countRows();
  const places = await makePlaces(server, rowan, 'gone');
  const base = `/studies/${places['study']}`;
  const readings = `${base}/questions/${places['question']}/readings`;
  const made = await rowan.send('POST', readings, {
    body: { id: randomUUID(), readerId: places['member'], size: 5, like: null },
  });
  expect(made.status).toBe(200);
  const trained = await rowan.send('POST', `${base}/questions/${places['question']}/training`, {
    body: {},
  });
  expect(trained.status).toBe(200);
  const remove = (name: string) => rowan.send('POST', `${base}/deletion`, { body: { name } });
  expect((await remove('test')).body).toMatchObject({ code: 'other_study_name' });
  expect((await countRows())['study']).toBe(before['study']! + 1);
  expect((await remove('Test ')).status).toBe(200);
  expect((await rowan.get(base)).status).toBe(404);
  while ((await countRows())['study'] !== before['study'])
    await new Promise((resolve) => setTimeout(resolve, 50));
  expect(await countRows()).toEqual(before);
  expect(server.errors).toEqual([]);
  const [audit] = await server.sql<{ action: string; study: number }>(
    `select action, study_id as study from audit order by id desc limit 1`,
  );
  expect(audit).toEqual({ action: 'study_deleted', study: places['study'] });
});
