import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type {
  ByRule,
  Codebook,
  GroupList,
  Ledger,
  Look,
  Report,
  RespondentRow,
  Rule,
  StudyDetail,
  VariableDetail,
} from '@yellow-thread/contract';
import { strFromU8, unzipSync } from 'fflate';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { bringIn, importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let home: number;
let age: number;
let fares: string;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

// a–d are coded and settled, e is open, f said nothing
const csv =
  'id,home,age,Why?\na,Tye,20,fares and steps\nb,Tye,40,fares\nc,Hask,60,crew\nd,Hask,70,fares\ne,,30,steps\nf,Tye,50,n/a\n';
beforeEach(async () => {
  study = await importStudy(client, csv);
  const variables = await server.sql<{ id: number; name: string }>(
    'select id, name from variable where study_id = :studyId',
    { studyId: study.id },
  );
  home = variables.find(({ name }) => name === 'home')!.id;
  age = variables.find(({ name }) => name === 'age')!.id;
  const { answers } = await study.ledger('same=apart');
  const byId = new Map(answers.map((answer) => [answer.externalId, answer.id]));
  fares = (await study.code(byId.get('a')!, { newCode: 'Fares' })).codeId;
  for (const id of ['b', 'd']) await study.code(byId.get(id)!, { codeId: fares });
  await study.code(byId.get('c')!, { newCode: 'Crew' });
  for (const id of ['a', 'b', 'c', 'd']) await study.settle(byId.get(id)!);
});

const groups = async () => (await client.get<GroupList>(`${study.base}/groups`)).body;
async function save(name: string, rule: Rule, id: string = randomUUID()) {
  const reply = await client.send('PUT', `${study.base}/groups/${id}`, {
    body: { name, description: '', rule },
  });
  return { ...reply, id };
}
const mentionsFares = (which: 'any' | 'none'): Rule => ({
  is: 'mentions',
  which,
  codeIds: [fares],
  themeIds: [],
  questionId: null,
});
const fromTye = (): Rule => ({ is: 'value', variableId: home, test: 'any_of', labels: ['Tye'] });

test('groups stay up to date with what is coded, what is known of people, and who arrives', async () => {
  await save('Fares', mentionsFares('any'));
  await save('No fares', mentionsFares('none'));
  await save('Tye', fromTye());
  const sizes = async () => (await groups()).groups.map(({ name, people }) => [name, people]);
  // e is open and f said nothing: neither is known not to mention the fares
  expect(await sizes()).toEqual([
    ['Fares', 3],
    ['No fares', 1],
    ['Tye', 3],
  ]);
  const { answers } = await study.ledger('same=apart');
  await study.settle(answers.find(({ externalId }) => externalId === 'e')!.id);
  expect((await bringIn(client, study.id, 'id,home,age,Why?\ng,Tye,33,fares\n')).state).toBe(
    'done',
  );
  expect(await sizes()).toEqual([
    ['Fares', 3],
    ['No fares', 2],
    ['Tye', 4],
  ]);
  expect((await groups()).respondents).toBe(7);
});

test('a group may stand on others, but not on itself; one that others need stays', async () => {
  const { id: tye } = await save('Tye', fromTye());
  const inTye: Rule = { is: 'in_group', groupId: tye, member: true };
  const nested: Rule = {
    is: 'all_of',
    rules: [
      inTye,
      {
        is: 'any_of',
        rules: [mentionsFares('any'), { is: 'range', variableId: age, from: 50, to: null }],
      },
    ],
  };
  const { id: both } = await save('Both', nested);
  expect((await groups()).groups.map(({ people }) => people)).toEqual([3, 3]);

  const circle = await save(
    'Tye',
    { is: 'none_of', rules: [{ is: 'in_group', groupId: both, member: true }] },
    tye,
  );
  expect(circle).toMatchObject({ status: 409, body: { code: 'group_circle' } });
  expect(circle.body.sentence).toContain('“Tye” → “Both” → “Tye”');
  const needed = await client.send('DELETE', `${study.base}/groups/${tye}`);
  expect(needed).toMatchObject({ status: 409, body: { code: 'group_needed' } });
  expect(needed.body.sentence).toContain('“Both”');

  const same = await save('both', inTye);
  expect(same).toMatchObject({ status: 409, body: { code: 'name_taken' } });
  let deep: Rule = inTye;
  for (let i = 0; i < 13; i++) deep = { is: 'all_of', rules: [deep] };
  expect(await save('Deep', deep)).toMatchObject({ status: 422, body: { code: 'rule_too_deep' } });
  expect((await groups()).groups).toHaveLength(2);

  expect((await client.send('DELETE', `${study.base}/groups/${both}`)).status).toBe(200);
  expect((await study.undo()).body.summary).toContain('“Both”');
  expect((await groups()).groups.map(({ name }) => name)).toEqual(['Tye', 'Both']);
});

test('restricted to a group, every stop counts and lists its members alone', async () => {
  const { id } = await save('Tye', fromTye());
  const question = `${study.base}/questions/${study.question}`;
  const only = `group=${id}`;
  const { body: detail } = await client.get<StudyDetail>(`${study.base}?${only}`);
  expect(detail).toMatchObject({
    respondents: 3,
    allRespondents: 6,
    questions: [{ asked: 3, answered: 2, settled: 2 }],
  });
  expect((await client.get<Ledger>(`${question}/ledger?${only}`)).body.total).toBe(2);
  expect((await client.get<Ledger>(`${question}/ledger?among=${id}&show=settled`)).body.total).toBe(
    2,
  );
  expect((await client.get<Look>(`${question}/look?${only}`)).body.answered).toBe(2);
  const { body: listed } = await client.get<{ ids: number[] }>(`${study.base}/respondents?${only}`);
  expect(listed.ids).toHaveLength(3);
  const { body: book } = await client.get<Codebook>(`${study.base}/codebook?${only}`);
  expect(book.codes.map(({ name, people }) => [name, people])).toEqual([
    ['Fares', 2],
    ['Crew', 0],
  ]);
  const { body: report } = await client.get<Report>(`${question}/report?by=${home}&${only}`);
  expect(report.columns.map(({ label, asked }) => [label, asked])).toEqual([
    ['Total', 3],
    ['Tye', 3],
  ]);
  expect(
    report.rows.map(({ name, cells }) => [name, cells[0]!.people, cells[0]!.base.people]),
  ).toEqual([
    ['Fares', 2, 2],
    ['Crew', 0, 2],
  ]);
  expect(report.origins.hand).toBe(2);
  const { text } = await client.get(`${question}/report/files/csv?by=none&${only}`);
  expect(text).toContain('Restricted to,Tye: respondents whose “home” is Tye');
  const gone = await client.get<{ code: string }>(`${question}/report?group=${randomUUID()}`);
  expect(gone).toMatchObject({ status: 404, body: { code: 'not_found' } });
});

test('a variable made of rules stands wherever background does, and follows the coding', async () => {
  const { id: tye } = await save('Tye', fromTye());
  const { id: old } = await save('Old', { is: 'range', variableId: age, from: 50, to: null });
  const inGroup = (groupId: string): Rule => ({ is: 'in_group', groupId, member: true });
  const make = (name: string, by: ByRule) =>
    client.send<{ id: number }>('POST', `${study.base}/variables`, { body: { name, by } });
  const rules = [
    { label: 'Tye', rule: inGroup(tye) },
    { label: 'Old', rule: inGroup(old) },
  ];
  const first = await make('First', { rules, inSeveral: null, inNone: null });
  const kind = (await make('Kind', { rules, inSeveral: 'Both', inNone: 'Neither' })).body.id;
  const aboutFares = (
    await make('Fares', {
      rules: [
        { label: 'Yes', rule: mentionsFares('any') },
        { label: 'No', rule: mentionsFares('none') },
      ],
      inSeveral: null,
      inNone: null,
    })
  ).body.id;
  expect(await make('Kind', { rules, inSeveral: null, inNone: null })).toMatchObject({
    status: 409,
    body: { code: 'name_taken' },
  });

  // f is from Tye and 50
  const counted = async (id: number) => {
    const { body } = await client.get<VariableDetail>(`${study.base}/variables/${id}`);
    return body.categories.map(({ label, count }) => [label, count]);
  };
  expect(await counted(first.body.id)).toEqual([
    ['Tye', 3],
    ['Old', 2],
  ]);
  expect(await counted(kind)).toEqual([
    ['Tye', 2],
    ['Old', 2],
    ['Both', 1],
    ['Neither', 1],
  ]);
  const question = `${study.base}/questions/${study.question}`;
  const columns = async (id: number) =>
    (await client.get<Report>(`${question}/report?by=${id}`)).body.columns.map((one) => [
      one.label,
      one.asked,
    ]);
  expect(await columns(aboutFares)).toEqual([
    ['Total', 6],
    ['Yes', 3],
    ['No', 1],
    ['Not stated', 2],
  ]);

  const listed = async (query: string) => {
    const { body } = await client.get<{ ids: number[] }>(`${study.base}/respondents?${query}`);
    const rows = await client.get<{ respondents: RespondentRow[] }>(
      `${study.base}/respondents/rows?ids=${body.ids.join(',')}`,
    );
    return rows.body.respondents.map((one) => [one.externalId, one.background[kind]]);
  };
  const inOrder = [
    ['a', 'Tye'] as const,
    ['b', 'Tye'] as const,
    ['c', 'Old'] as const,
    ['d', 'Old'] as const,
    ['f', 'Both'] as const,
    ['e', 'Neither'] as const,
  ];
  expect(await listed(`sort=${kind}`)).toEqual(inOrder);
  expect(await listed('words=neith')).toEqual([['e', 'Neither']]);
  const whose = (labels: string[]): Rule => ({
    is: 'value',
    variableId: kind,
    test: 'any_of',
    labels,
  });
  expect(await listed(`rule=${JSON.stringify(whose(['Both', 'Old']))}`)).toEqual([
    inOrder[2],
    inOrder[3],
    inOrder[4],
  ]);
  const ledger = await study.ledger(`where=${kind}:Old&same=apart`);
  expect(ledger.answers.map(({ externalId }) => externalId)).toEqual(['c', 'd']);
  const sample = await client.send<{ id: number }>('POST', `${question}/samples`, {
    body: { kind: 'stratified', variableId: kind, size: 3, seed: 1 },
  });
  expect(sample.status).toBe(200);
  const { bytes } = await client.get(`${study.base}/respondents/files/zip`);
  const [head, ...lines] = strFromU8(unzipSync(bytes)['respondents.csv']!).trim().split(/\r?\n/u);
  const place = head!.split(',').indexOf('kind');
  expect(lines.map((line) => line.split(',')[place])).toEqual([
    'Tye',
    'Tye',
    'Old',
    'Old',
    'Neither',
    'Both',
  ]);

  // what depends on it follows, and cannot be pulled from under it
  const { answers } = await study.ledger('same=apart');
  await study.settle(answers.find(({ externalId }) => externalId === 'e')!.id);
  expect(await counted(aboutFares)).toEqual([
    ['Yes', 3],
    ['No', 2],
  ]);
  const needed = await client.send('DELETE', `${study.base}/groups/${old}`);
  expect(needed).toMatchObject({ status: 409, body: { code: 'group_needed' } });
  expect(needed.body.sentence).toContain('“Kind”');
  const circle = await save('Old', whose(['Tye']), old);
  expect(circle).toMatchObject({ status: 409, body: { code: 'group_circle' } });
  expect(circle.body.sentence).toContain('“Old” → “Kind” → “Old”');
  const sheet = await bringIn(client, study.id, 'id,Kind,Why?\nz,Tye,fares\n');
  expect(sheet.problem).toMatchObject({ code: 'column_worked_out' });

  // a group that stands on a variable which is gone picks nobody, and can be seen
  await save('Kinds', whose(['Both']));
  const kinds = async () => (await groups()).groups.find(({ name }) => name === 'Kinds')!.people;
  expect(await kinds()).toBe(1);
  expect((await client.send('DELETE', `${study.base}/variables/${kind}`)).status).toBe(200);
  expect(await kinds()).toBe(0);
  await study.undo();
  expect(await counted(kind)).toHaveLength(4);
});
