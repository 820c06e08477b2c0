import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type { Report } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { bringIn, importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let ids: number[];
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
// a–e answered, f said nothing; weights make c count for as much as all the others
const csv =
  'id,home,weight,Why?\na,Tye,1,fares and steps\nb,Tye,1,fares\nc,Hask,4,fares\nd,Hask,1,seals\ne,,1,steps\nf,Tye,1,n/a\n';
beforeEach(async () => {
  study = await importStudy(client, csv);
  ids = (await study.ledger('same=apart')).answers.map((answer) => answer.id);
});
afterAll(() => server.stop());

const report = async (query = 'by=none') =>
  (await client.get<Report>(`${study.base}/questions/${study.question}/report?${query}`)).body;
const home = async () =>
  (
    await server.sql<{ id: number }>(
      `select id from variable where study_id = :studyId and name = 'home'`,
      { studyId: study.id },
    )
  )[0]!.id;
const cellOf = (table: Report, name: string, column = 0) =>
  table.rows.find((row) => row.name === name)!.cells[column]!;

/** Codes a, b, c with fares and a with steps, settles a–d; e stays open. */
async function codeAll() {
  const fares = await study.code(ids[0]!, { newCode: 'Fares' }, [0, 5]);
  const steps = await study.code(ids[0]!, { newCode: 'Steps' });
  await study.code(ids[0]!, { codeId: fares.codeId });
  for (const i of [1, 2]) await study.code(ids[i]!, { codeId: fares.codeId });
  for (const i of [0, 1, 2, 3]) await study.settle(ids[i]!);
  return { fares: fares.codeId, steps: steps.codeId };
}

describe('bases', () => {
  test('each rule has its bases; one that it has not is the people whose answers count', async () => {
    await codeAll();
    const share = async (query: string) => cellOf(await report(`by=none&${query}`), 'Fares').share;
    expect(await share('counts=settled')).toBe(3 / 4);
    expect(await share('counts=settled&base=asked')).toBe(3 / 4);
    expect(await share('counts=settled&base=mentions')).toBe(4 / 5);
    expect(await share('counts=decided')).toBe(3 / 5);
    expect(await share('counts=decided&base=asked')).toBe(3 / 6);
    // shares of mentions say nothing while some are not known
    expect(await share('counts=decided&base=mentions')).toBe(3 / 5);
    expect(cellOf(await report(), 'Fares')).toMatchObject({ people: 3, mentions: 4 });
  });

  test('weighted: shares by weight, people by heads, the effective base by Kish', async () => {
    await codeAll();
    const cell = cellOf(await report('by=none&weighted=true'), 'Fares');
    expect(cell).toMatchObject({ people: 3, weighted: 6, share: 6 / 7 });
    expect(cell.base.effective).toBeCloseTo(49 / 19, 12);
  });

  test('by group: those without a value stand apart, last, and nobody is lost', async () => {
    await codeAll();
    const table = await report(`by=${await home()}&base=asked`);
    expect(table.columns.map(({ label, asked }) => [label, asked])).toEqual([
      ['Total', 6],
      ['Hask', 2],
      ['Tye', 3],
      ['Not stated', 1],
    ]);
    expect([0, 1, 2, 3].map((column) => cellOf(table, 'Fares', column).people)).toEqual([
      3, 1, 2, 0,
    ]);
  });

  test('what is coded but not settled is not counted where settled answers are, and told of', async () => {
    const { fares } = await codeAll();
    await study.code(ids[4]!, { codeId: fares });
    const table = await report();
    expect(cellOf(table, 'Fares').people).toBe(3);
    expect(table.origins).toEqual({
      hand: 5,
      accepted: 0,
      bulk: 0,
      import: 0,
      words: 0,
      notCounted: 1,
    });
    await study.settle(ids[4]!);
    expect(cellOf(await report(), 'Fares').people).toBe(4);
  });
});

describe('themes', () => {
  test('a person counts once under a theme; a code that moves takes its people along', async () => {
    const { fares, steps } = await codeAll();
    const theme = randomUUID();
    await client.send('POST', `${study.base}/themes`, { body: { id: theme, name: 'Getting on' } });
    for (const code of [fares, steps])
      await client.send('PATCH', `${study.base}/codes/${code}`, {
        body: { from: { themeId: null }, to: { themeId: theme } },
      });
    const table = await report();
    expect(
      table.rows.map((row) => [row.kind, row.name, row.cells[0]!.people, row.cells[0]!.mentions]),
    ).toEqual([
      ['theme', 'Getting on', 3, 5],
      ['code', 'Fares', 3, 4],
      ['code', 'Steps', 1, 1],
    ]);
  });

  test('a second coder’s settling does not count a person twice', async () => {
    const { fares } = await codeAll();
    const colleague = await server.enter(`Colleague ${study.id}`);
    await letIn(client, study.id, colleague);
    await colleague.send('PUT', `${study.base}/responses/${ids[0]!}/settlement`, {
      body: { settled: true },
    });
    await colleague.send('POST', `${study.base}/mentions`, {
      body: { id: randomUUID(), responseId: ids[0]!, codeId: fares, start: null, end: null },
    });
    const cell = cellOf(await report(), 'Fares');
    expect(cell).toMatchObject({ people: 3, mentions: 5, base: { people: 4 } });
  });
});

test('respondents who came after a code was closed are open for it', async () => {
  // ten answers teach, ten are suggested for and all decided; then a new wave comes in
  const rows = Array.from(
    { length: 20 },
    (_, i) => `${i},${i % 2 ? `the fares again on day ${i}` : `lovely crew on day ${i}`}`,
  );
  study = await importStudy(client, `id,Why?\n${rows.join('\n')}`);
  const { answers } = await study.ledger('same=apart');
  let codeId = '';
  for (const answer of answers.slice(0, 10)) {
    if (answer.text.includes('fares'))
      codeId = (await study.code(answer.id, codeId ? { codeId } : { newCode: 'Fares' })).codeId;
    await study.settle(answer.id);
  }
  const path = `${study.base}/questions/${study.question}`;
  const { body: job } = await client.send<{ id: number }>('POST', `${path}/training`, { body: {} });
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  const { body: review } = await client.get<{ runId: number }>(`${path}/review/${codeId}`);
  for (const side of ['above', 'below'])
    await client.send('POST', `${path}/review/${codeId}/settle`, {
      body: { runId: review.runId, threshold: 0.5, side },
    });
  await client.send('POST', `${path}/left/closed`, {
    body: { codes: [{ codeId, how: 'suggestions' }] },
  });
  const finished = await report();
  expect(finished).toMatchObject({ counts: 'decided', isFinished: true });
  expect(cellOf(finished, 'Fares')).toMatchObject({
    people: 10,
    undecided: 0,
    base: { people: 20 },
  });

  const later = await bringIn(client, study.id, 'id,Why?\n99,the fares too\n');
  expect(later.state).toBe('done');
  // no longer finished, it is what is settled by hand unless somebody asks for more
  const table = await report();
  expect(table).toMatchObject({ counts: 'settled', isFinished: false });
  expect(table.columns[0]).toMatchObject({ asked: 21, answered: 21, settled: 10, counted: 10 });
  const decided = await report('by=none&counts=decided');
  expect(cellOf(decided, 'Fares')).toMatchObject({
    people: 10,
    undecided: 1,
    base: { people: 21 },
  });
});

test('the CSV disarms what a spreadsheet would run, and tells weighted from unweighted bases', async () => {
  await study.code(ids[0]!, { newCode: '=1+1' });
  await study.settle(ids[0]!);
  const { text } = await client.get(
    `${study.base}/questions/${study.question}/report/files/csv?by=none&weighted=true`,
  );
  expect(text).toContain(
    'Total: people,Total: base,Total: weighted people,Total: weighted base,Total: effective base,Total: %,',
  );
  expect(text).toContain("code,,'=1+1,1,1,1,1,1,100,");
  expect(text).toContain('Weighted,yes');
});

test('across: one variable within another, waves, coders, groups that overlap, single respondents', async () => {
  await codeAll();
  await bringIn(client, study.id, 'id,home,weight,Why?\nz,Tye,1,later fares\n', (settings) => ({
    ...settings,
    wave: 'Autumn',
  }));
  const heads = async (by: string) =>
    (await report(`by=${by}&base=asked`)).columns.map((column) => [
      ...(column.under === null ? [] : [column.under]),
      column.label,
      column.asked,
    ]);
  const variables = await server.sql<{ id: number; name: string }>(
    'select id, name from variable where study_id = :studyId order by position',
    { studyId: study.id },
  );
  const wave = variables.find(({ name }) => name !== 'home')!;
  expect(await heads(`${await home()},${wave.id}`)).toEqual([
    ['Total', 7],
    ['Hask', 'Not stated', 2],
    ['Tye', 'Autumn', 1],
    ['Tye', 'Not stated', 3],
    ['Not stated', 'Not stated', 1],
  ]);
  expect(await heads('wave')).toEqual([
    ['Total', 7],
    ['sheet.csv', 6],
    ['Autumn', 1],
  ]);
  expect((await heads('respondent')).slice(0, 3)).toEqual([
    ['Total', 7],
    ['a', 1],
    ['b', 1],
  ]);
  const coders = await report('by=coder');
  expect(coders.columns.map(({ label, settled }) => [label, settled])).toEqual([['Rowan', 4]]);

  // two groups with Tye in both are not compared with each other, but each with everyone else
  for (const [name, labels] of [
    ['Tye', ['Tye']],
    ['Both', ['Tye', 'Hask']],
  ] as const)
    await client.send('PUT', `${study.base}/groups/${randomUUID()}`, {
      body: {
        name,
        description: '',
        rule: { is: 'value', variableId: await home(), test: 'any_of', labels },
      },
    });
  expect((await report('by=groups')).overlapping).toEqual([['Tye', 'Both']]);
  const refused = await client.get<{ code: string }>(
    `${study.base}/questions/${study.question}/report?by=groups&difference=1-2`,
  );
  expect(refused).toMatchObject({ status: 422, body: { code: 'no_such_difference' } });
});

test('a cell names the columns that it exceeds beyond chance; questions and totals are not compared', async () => {
  // 30 of 40 on Rook and 10 of 40 on Tye mention the fares, and nobody's island is missing but one's
  const rows = ['Rook', 'Tye'].flatMap((island, g) =>
    Array.from(
      { length: 40 },
      (_, i) =>
        `${island}${i},${island},the ${i < (g ? 10 : 30) ? 'fares' : 'crew'} on day ${i} of ${island}`,
    ),
  );
  study = await importStudy(
    client,
    `id,Island,Why?\n${rows.join('\n')}\nx,,the fares on some other day`,
  );
  const { answers } = await study.ledger('same=apart');
  const fares = answers.filter((one) => one.text.includes('fares')).map((one) => one.id);
  const { codeId } = await study.code(fares[0]!, { newCode: 'Fares' });
  for (const id of fares.slice(1)) await study.code(id, { codeId });
  for (const { id } of answers) await study.settle(id);
  const { body: detail } = await client.get<{ variables: { id: number }[] }>(study.base);
  const by = detail.variables[0]!.id;
  const path = `${study.base}/questions/${study.question}/report`;
  const table = async (query: string) => (await client.get<Report>(`${path}?${query}`)).body;
  const tested = await table(`by=${by}`);
  expect(tested.columns.map(({ label, letter }) => [label, letter])).toEqual([
    ['Total', null],
    ['Rook', 'A'],
    ['Tye', 'B'],
    ['Not stated', null],
  ]);
  expect(tested.rows[0]!.cells.map((cell) => cell.exceeds)).toEqual([[], ['B'], [], []]);
  const { text } = await client.get(`${path}/files/csv?by=${by}`);
  expect(text).toContain('A Rook: higher than');
  const against = await table(`by=${by}&against=rest&difference=1-2&level=99`);
  expect(against.rows[0]!.cells.map(({ rest }) => rest)).toEqual([null, 'higher', 'lower', null]);
  expect(against.rows[0]!.difference).toMatchObject({ value: 0.5, test: 'z' });
  // 30 of 40 and 10 of 40: Pearson's chi-square is 80 (30·30 − 10·10)² / 40⁴ = 20
  expect(against.rows[0]!.whole).toMatchObject({
    test: 'chi_square',
    value: expect.closeTo(20, 9),
    degrees: [1],
    strength: expect.closeTo(0.5, 9),
  });
  for (const query of [`by=${by}&test=off`, 'by=question', 'by=none'])
    expect((await table(query)).columns.every(({ letter }) => letter === null)).toBe(true);
});
