import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Report, RespondentRow, StudyDetail, VariableDetail } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let detail: StudyDetail;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const csv = `id,home,score,came,Why?
R1,Tye,3,2026-01-05,It is always too late
R2,Old Tye,7,2026-02-09,It is far too dear
R10,Hask,9,,nothing
R4,,10,2026-03-01,It is wet and cold here
R5,Hask,,2026-03-02,n/a
`;
const setUp = async () => {
  study = await importStudy(client, csv);
  detail = (await client.get<StudyDetail>(study.base)).body;
};
const variable = (name: string) => detail.variables.find((one) => one.name === name)!.id;
const list = async (query: string) => {
  const { body } = await client.get<{ ids: number[] }>(`${study.base}/respondents?${query}`);
  if (body.ids.length === 0) return [];
  const { body: page } = await client.get<{ respondents: RespondentRow[] }>(
    `${study.base}/respondents/rows?ids=${body.ids.join(',')}`,
  );
  return page.respondents.map((one) => one.externalId);
};
const reportBy = async (id: number) => {
  const { body } = await client.get<Report>(
    `${study.base}/questions/${study.question}/report?by=${id}`,
  );
  return body.columns.map(({ label, asked }) => [label, asked]);
};

test('lists respondents in any order, those without a value last, and finds them by words', async () => {
  await setUp();
  expect(await list('')).toEqual(['R1', 'R2', 'R10', 'R4', 'R5']);
  expect(await list('sort=id')).toEqual(['R1', 'R10', 'R2', 'R4', 'R5']);
  const score = variable('score');
  expect(await list(`sort=${score}`)).toEqual(['R1', 'R2', 'R10', 'R4', 'R5']);
  expect(await list(`sort=${score}&descending=true`)).toEqual(['R4', 'R10', 'R2', 'R1', 'R5']);
  expect(await list(`sort=${variable('home')}`)).toEqual(['R10', 'R5', 'R2', 'R1', 'R4']);
  expect(await list('words=tye')).toEqual(['R1', 'R2']);
  expect(await list('words=R1')).toEqual(['R1', 'R10']);
});

test('finds respondents with or without accents, however letters and apostrophes are written', async () => {
  study = await importStudy(
    client,
    'id,home,Why?\n1,Straße,it is late\n2,Øster Sæby,it is dear\n3,L’Île,it is wet\n4,Tye,it is cold\n',
  );
  const found = [
    ['straße', '1'] as const,
    ['STRASSE', '1'] as const,
    ['øster', '2'] as const,
    ['oster saeby', '2'] as const,
    ["l'ile", '3'] as const,
    ['L’Île', '3'] as const,
  ];
  for (const [words, id] of found)
    expect([words, await list(`words=${encodeURIComponent(words)}`)]).toEqual([words, [id]]);
});

test('narrows the list by a rule, together with words, and refuses what is none', async () => {
  await setUp();
  const by = (...rules: object[]) =>
    `rule=${encodeURIComponent(JSON.stringify({ is: 'all_of', rules }))}`;
  const home = { is: 'value', variableId: variable('home'), test: 'any_of', labels: ['Hask'] };
  const score = { is: 'range', variableId: variable('score'), from: 5, to: null };
  expect(await list(by(home))).toEqual(['R10', 'R5']);
  expect(
    await list(by(home, { is: 'stated', variableId: variable('score'), stated: true })),
  ).toEqual(['R10']);
  expect(await list(`${by(score)}&words=R1`)).toEqual(['R10']);
  for (const wrong of ['{"is":"value"}', 'nobody', ''])
    expect(await client.get(`${study.base}/respondents?rule=${wrong}`)).toMatchObject({
      status: 400,
      body: { code: 'invalid_request' },
    });
});

test('changes one value, refuses what does not fit, and undoes it', async () => {
  await setUp();
  const { body } = await client.get<{ ids: number[] }>(`${study.base}/respondents`);
  const path = `${study.base}/respondents/${body.ids[0]}`;
  const change = (name: string, value: unknown) =>
    client.send('PATCH', path, { body: { variableId: variable(name), value } });
  expect((await change('score', 'high')).body.code).toBe('value_does_not_fit');
  for (const day of ['9 March', '2026-02-31'])
    expect((await change('came', day)).body.code).toBe('value_does_not_fit');
  expect((await change('home', 'Hask')).status).toBe(200);
  expect(await reportBy(variable('home'))).toEqual([
    ['Total', 5],
    ['Hask', 3],
    ['Old Tye', 1],
    ['Not stated', 1],
  ]);
  expect((await study.undo()).body.summary).toBe('changing “home” of R1');
  expect(await reportBy(variable('home'))).toContainEqual(['Tye', 1]);
});

test('joins and orders categories: what is stored stays, the report follows, and undo takes it back', async () => {
  await setUp();
  const home = variable('home');
  const path = `${study.base}/variables/${home}`;
  const { body: before } = await client.get<VariableDetail>(path);
  expect(before.categories).toEqual([
    { value: 'Hask', label: 'Hask', count: 2 },
    { value: 'Old Tye', label: 'Old Tye', count: 1 },
    { value: 'Tye', label: 'Tye', count: 1 },
  ]);
  const categories = [
    { value: 'Tye', label: 'Tye, all of it' },
    { value: 'Old Tye', label: 'Tye, all of it' },
    { value: 'Hask', label: 'Hask' },
  ];
  const put = (list: unknown) =>
    client.send('PUT', `${path}/categories`, { body: { categories: list } });
  const gone = { value: 'Lorn', label: 'Lorn' };
  expect((await put([...categories, gone])).body.code).toBe('changed_meanwhile');
  // one that came in meanwhile, of which nobody knew, stays as it is, behind the others
  expect((await put(categories.slice(1))).status).toBe(200);
  const now = (await client.get<VariableDetail>(path)).body.categories;
  expect(now.map(({ label }) => label)).toEqual(['Tye, all of it', 'Hask', 'Tye']);
  await study.undo();
  expect((await put(categories)).status).toBe(200);
  expect(await reportBy(home)).toEqual([
    ['Total', 5],
    ['Tye, all of it', 2],
    ['Hask', 2],
    ['Not stated', 1],
  ]);
  await study.undo();
  expect((await client.get<VariableDetail>(path)).body).toEqual(before);
});

test('bands a number and a date into variables that follow later values', async () => {
  await setUp();
  const band = (name: string, body: unknown) =>
    client.send<{ id: number; code: string }>(
      'POST',
      `${study.base}/variables/${variable(name)}/bands`,
      { body },
    );
  const { body: made } = await band('score', {
    name: 'Score in three',
    bands: [
      { label: '0–6', from: null },
      { label: '7–8', from: 7 },
      { label: '9–10', from: 9 },
    ],
  });
  expect(await reportBy(made.id)).toEqual([
    ['Total', 5],
    ['0–6', 1],
    ['7–8', 1],
    ['9–10', 2],
    ['Not stated', 1],
  ]);
  const { body: dates } = await band('came', {
    name: 'Quarter',
    bands: [{ label: 'from February', from: '2026-02-01' }],
  });
  expect(await reportBy(dates.id)).toEqual([
    ['Total', 5],
    ['from February', 3],
    ['Not stated', 2],
  ]);
  expect((await band('home', { name: 'x', bands: [{ label: 'a', from: 1 }] })).body.code).toBe(
    'no_bands',
  );
  const falling = [
    { label: 'a', from: 5 },
    { label: 'b', from: 1 },
  ];
  expect((await band('score', { name: 'x', bands: falling })).status).toBe(400);
  expect((await study.undo()).body.summary).toBe('banding “came”');
  const { body: after } = await client.get<StudyDetail>(study.base);
  expect(after.variables.map((one) => one.name)).toEqual([
    'home',
    'score',
    'came',
    'Score in three',
  ]);
  const remove = (name: string) =>
    client.send(
      'DELETE',
      `${study.base}/variables/${after.variables.find((one) => one.name === name)!.id}`,
    );
  expect((await remove('home')).body.code).toBe('variable_from_sheet');
  expect((await remove('Score in three')).status).toBe(200);
});

test('changes the study, its questions and their order, each undone by its name', async () => {
  await setUp();
  await client.send('PATCH', study.base, { body: { purpose: 'To know why' } });
  await client.send('PATCH', `${study.base}/questions/${study.question}`, {
    body: { label: 'Reasons', wording: 'Why is that?' },
  });
  const read = async () => (await client.get<StudyDetail>(study.base)).body;
  expect(await read()).toMatchObject({
    purpose: 'To know why',
    questions: [{ label: 'Reasons', wording: 'Why is that?' }],
  });
  expect((await study.undo()).body.summary).toContain('changing the question');
  expect((await study.undo()).body.summary).toBe('changing the study');
  expect(await read()).toMatchObject({ purpose: '', questions: [{ wording: 'Why?' }] });
  const order = await client.send('PUT', `${study.base}/question-order`, {
    body: { questions: [] },
  });
  expect(order.body.code).toBe('changed_meanwhile');
});

test('the list of no-answers sorts responses again, but never what is coded', async () => {
  await setUp();
  const put = (noAnswers: string[]) =>
    client.send<Record<string, number>>('PUT', `${study.base}/no-answers`, { body: { noAnswers } });
  expect((await put(['nothing'])).body).toEqual({
    becameAnswers: 1,
    becameNoAnswers: 1,
    keptCoded: 0,
  });
  const { answers } = await study.ledger();
  expect(answers.map((one) => one.text)).toContain('n/a');
  await study.code(answers.find((one) => one.text === 'n/a')!.id, { newCode: 'Left blank' });
  expect((await put(['nothing', 'n/a'])).body).toEqual({
    becameAnswers: 0,
    becameNoAnswers: 0,
    keptCoded: 1,
  });
});

test('interviewer’s words are not coded, and an answer of nothing else is none', async () => {
  study = await importStudy(
    client,
    'id,Why?\n1,[pause] It is late again\n2,[shrugs and looks away]\n',
  );
  const asides = { brackets: ['[]'], leading: [] };
  expect((await client.send('PATCH', study.base, { body: { asides } })).status).toBe(200);
  const { answers } = await study.ledger();
  expect(answers.map((one) => one.text)).toEqual(['[pause] It is late again']);
  const refused = await study.code(answers[0]!.id, { newCode: 'Pause' }, [0, 7]);
  expect(refused.body.code).toBe('aside_not_coded');
  const { body: look } = await client.get<{ words: { word: string }[] }>(
    `${study.base}/questions/${study.question}/look`,
  );
  expect(look.words.map((one) => one.word)).toEqual(['again', 'late']);
});
