import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type {
  Agreement,
  Codebook,
  Change,
  ReadingAnswers,
  ReadingList,
  WriteUp,
} from '@yellow-thread/contract';
import Excel from 'exceljs';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { letIn } from '../../test/study.js';
import { importFares } from '../../test/fares.js';

// one story: Rowan codes, Wren codes the same answers without seeing how, they compare and settle where they differ
let server: TestServer;
let rowan: Client;
let wren: Client;
let study: Awaited<ReturnType<typeof importFares>>['study'];
let fares: string;
let crew: string;
let path: string;
let reading: string;

beforeAll(async () => {
  server = await startServer();
  rowan = await server.enter('Rowan');
  wren = await server.enter('Wren');
  ({ study, fares, path } = await importFares(
    rowan,
    'id,Why?',
    ['open one', 'open two'],
    (text, i) => `${i},${text}`,
  ));
  const { answers } = await study.ledger('words=crew');
  crew = (await study.code(answers[0]!.id, { newCode: 'Crew' })).codeId;
  for (const { id } of answers.slice(1)) await study.code(id, { codeId: crew });
  await letIn(rowan, study.id, wren, 'researcher');
});
afterAll(() => server.stop());

const draw = (body: object = {}) => {
  const id = randomUUID();
  return rowan
    .send('POST', `${path}/readings`, {
      body: { id, readerId: wren.accountId, size: 500, like: null, ...body },
    })
    .then((reply) => ({ ...reply, id }));
};
const list = async () => (await rowan.get<ReadingList>(`${path}/readings`)).body;
const answersOf = (client: Client, id: string) =>
  client.get<ReadingAnswers>(`${path}/readings/${id}/answers`);
const codeAgain = (client: Client, id: string, responseId: number, codes: string[]) =>
  client.send('PUT', `${path}/readings/${id}/answers`, { body: { responseId, codes } });
const compared = (id = reading) => rowan.get<Agreement>(`${path}/readings/${id}/agreement`);
/** As Rowan did, but for “lovely crew” and for one more fare. */
const asWren = (text: string) => [
  ...(text.includes('fare') || text === 'the queue' ? [fares] : []),
  ...(text.includes('crew') && !text.includes('lovely') ? [crew] : []),
];
const mentionsOf = async (text: string) => {
  const { answers } = await study.ledger('same=apart');
  return answers.find((one) => one.text === text)!.mentions.map(({ codeId }) => codeId);
};

test('settled answers alone are drawn, and only their reader codes them, without seeing how they were coded', async () => {
  const before = (await study.ledger('same=apart')).answers;
  const drawn = await draw();
  reading = drawn.id;
  expect(drawn.status).toBe(200);
  expect(await list()).toMatchObject({
    readings: [
      {
        id: reading,
        reader: 'Wren',
        firstCoders: ['Rowan'],
        size: 12,
        read: 0,
        drawnFrom: 12,
      },
    ],
  });
  expect((await answersOf(rowan, reading)).body).toMatchObject({ code: 'not_your_reading' });
  const { body, text } = await answersOf(wren, reading);
  expect(body.answers).toHaveLength(12);
  expect(body.answers.every(({ codes }) => codes === null)).toBe(true);
  expect(text).not.toContain(fares);
  expect((await compared()).body).toMatchObject({ code: 'reading_under_way' });
  // nor do they find answers by the codes that are kept from them
  const foundBy = async (client: Client) =>
    (await client.get<{ ids: number[] }>(`${path}/ledger?any=${fares}&same=apart`)).body.ids.length;
  expect([await foundBy(wren), await foundBy(rowan)]).toEqual([0, expect.any(Number)]);
  expect(await foundBy(rowan)).toBeGreaterThan(0);
  const rule = { is: 'mentions', which: 'any', codeIds: [fares], themeIds: [], questionId: null };
  const of = `of=${encodeURIComponent(JSON.stringify(rule))}`;
  const chosenBy = async (client: Client) => [
    (await client.get<{ ids: number[] }>(`${path}/ledger?${of}&same=apart`)).body.ids.length,
    (await client.get<{ answers: number }>(`${path}/look/representatives?${of}`)).body.answers,
  ];
  expect(await chosenBy(wren)).toEqual([0, 0]);
  expect((await chosenBy(rowan)).every((count) => count > 0)).toBe(true);
  const [first] = body.answers;
  expect((await codeAgain(rowan, reading, first!.responseId, [])).body.code).toBe(
    'not_your_reading',
  );
  expect((await codeAgain(wren, reading, first!.responseId, [randomUUID()])).status).toBe(404);
  const stranger = await server.enter('Ash');
  expect((await answersOf(stranger, reading)).status).toBe(404);
  for (const { responseId, text: words } of body.answers) {
    const codes = asWren(words);
    expect((await codeAgain(wren, reading, responseId, codes)).status).toBe(200);
    // sent twice
    expect((await codeAgain(wren, reading, responseId, codes)).status).toBe(200);
  }
  expect((await codeAgain(wren, reading, first!.responseId, [fares, crew])).body.code).toBe(
    'reading_done',
  );
  // kept apart: the coding is as it was
  expect((await study.ledger('same=apart')).answers).toEqual(before);
  expect((await draw()).body.code).toBe('nothing_to_read_again');
});

test('agreement is told code by code with its four cells, and where the two differ', async () => {
  const { codes, overall, sameSets, everybody, differing, alphaOfSets } = (await compared()).body;
  const cellsOf = (codeId: string) => codes.find((one) => one.codeId === codeId)!.cells;
  expect(cellsOf(fares)).toEqual({ both: 6, first: 0, second: 1, neither: 5 });
  expect(cellsOf(crew)).toEqual({ both: 2, first: 1, second: 0, neither: 9 });
  expect(overall.cells).toEqual({ both: 8, first: 1, second: 1, neither: 14 });
  // by hand: agreed 22 of 24, by chance (9·9 + 15·15)/24²
  expect(overall.kappa).toBeCloseTo((22 / 24 - 306 / 576) / (1 - 306 / 576), 12);
  expect(sameSets).toMatchObject({ count: 10, n: 12 });
  expect(alphaOfSets).toBeLessThan(1);
  expect(everybody).toBeNull();
  expect(codes.map(({ state }) => state)).toEqual(['firm', 'little_evidence']);
  // a coder who settles one of them later was not the first
  await wren.send('PUT', `${study.base}/responses/${differing[0]!.responseId}/settlement`, {
    body: { settled: true },
  });
  expect((await list()).readings[0]!.firstCoders).toEqual(['Rowan']);
  expect(differing.map(({ text, codes: one }) => [text, one]).sort()).toEqual([
    ['lovely crew', [{ codeId: crew, by: 'first', applies: null }]],
    ['the queue', [{ codeId: fares, by: 'second', applies: null }]],
  ]);
});

test('of a theme it counts whether any of its codes was given', async () => {
  const themeId = randomUUID();
  await rowan.send('POST', `${study.base}/themes`, { body: { id: themeId, name: 'Aboard' } });
  for (const code of [fares, crew])
    await rowan.send('POST', `${study.base}/codes/${code}/place`, {
      body: { themeId, before: null },
    });
  const { themes, codes } = (await compared()).body;
  // six fares and two of the crew both times, a crew only the first time, a queue only the second
  expect(themes).toMatchObject([
    { themeId, cells: { both: 8, first: 1, second: 1, neither: 2 }, state: 'low' },
  ]);
  expect(codes).toHaveLength(2);
  expect((await rowan.get(`${path}/readings/${reading}/files/csv`)).text).toContain(
    'Aboard,8,1,1,2,12,83.33,',
  );
  for (let n = 0; n < 3; n++) await study.undo();
});

test('its files say the same, and what they rest on', async () => {
  const file = (format: string) => rowan.get(`${path}/readings/${reading}/files/${format}`);
  const csv = (await file('csv')).text;
  expect(csv).toContain('Answers,"12, drawn at random from 12 settled ones"');
  expect(csv).toContain('"Wren, without the first codes in view"');
  // both, only Rowan, only Wren, neither, decisions and the share agreed
  expect(csv).toContain('Fares,6,0,1,5,12,91.67,');
  expect(csv).toContain('All codes,8,1,1,14,24,91.67,0.822,');
  const workbook = new Excel.Workbook();
  await workbook.xlsx.load(Uint8Array.from((await file('xlsx')).bytes).buffer);
  const sheet = workbook.getWorksheet('Agreement')!;
  const names = sheet.getColumn(1).values;
  const row = sheet.getRow(names.indexOf('Fares'));
  expect([2, 3, 4, 5, 6, 7].map((c) => row.getCell(c).value)).toEqual([6, 0, 1, 5, 12, 11 / 12]);
  expect((await wren.get(`${path}/readings/${randomUUID()}/files/csv`)).status).toBe(404);
});

test('what is decided where they differ stands in the coding afterwards, and is undone as one', async () => {
  const { differing } = (await compared()).body;
  const settle = (text: string, codeId: string, applies: boolean) =>
    rowan.send('PUT', `${path}/readings/${reading}/agreement`, {
      body: {
        responseId: differing.find((one) => one.text === text)!.responseId,
        codeId,
        applies,
      },
    });
  expect((await settle('the queue', fares, true)).status).toBe(200);
  expect(await mentionsOf('the queue')).toEqual([fares]);
  expect((await settle('lovely crew', crew, false)).status).toBe(200);
  expect(await mentionsOf('lovely crew')).toEqual([]);
  expect((await settle('lovely crew', fares, true)).status).toBe(404);
  const after = (await compared()).body;
  expect(
    after.differing.flatMap(({ codes }) => codes.map(({ applies }) => applies)).sort(),
  ).toEqual([false, true]);
  // agreement stays what it was before they talked
  expect(after.overall).toEqual((await compared()).body.overall);
  expect(after.overall.cells.first).toBe(1);
  await study.undo();
  expect(await mentionsOf('lovely crew')).toEqual([crew]);
  const { body: history } = await rowan.get<{ changes: Change[] }>(`${study.base}/history?limit=2`);
  expect(history.changes.map(({ summary, undone }) => [summary, undone])).toEqual([
    ['deciding that “Crew” does not apply', true],
    ['deciding that “Fares” applies', false],
  ]);
});

test('a third coder of the same answers is compared with both; ending early leaves out what was not read', async () => {
  const { id } = await draw({ readerId: rowan.accountId, like: reading });
  const { answers } = (await answersOf(rowan, id)).body;
  expect(answers).toHaveLength(12);
  // in whatever order they were drawn, both codes are among those that are read
  const crewFirst = answers.toSorted(
    (x, y) => Number(y.text.includes('crew')) - Number(x.text.includes('crew')),
  );
  for (const { responseId, text } of crewFirst.slice(0, 8))
    await codeAgain(rowan, id, responseId, text.includes('fare') ? [fares] : []);
  expect((await compared(id)).body).toMatchObject({
    code: 'reading_under_way',
    sentence: expect.stringContaining('4 answers'),
  });
  await rowan.send('POST', `${path}/readings/${id}/end`);
  const found = (await compared(id)).body;
  expect(found.reading).toMatchObject({ size: 8, drawn: 12 });
  expect(found.overall.n).toBe(8 * found.codes.length);
  expect(found.everybody).toMatchObject({ coders: 3 });
  expect(Object.keys(found.everybody!.codes).sort()).toEqual([fares, crew].sort());
  // any two are compared: here without who settled them first
  expect(found.others).toEqual([{ id: reading, reader: 'Wren', answers: 8 }]);
  const two = await rowan.get<Agreement>(`${path}/readings/${id}/agreement?against=${reading}`);
  expect(two.body.reading).toMatchObject({ firstCoders: ['Wren'], reader: 'Rowan' });
  // of the eight, Wren gave a code to each with “crew” but the lovely one, and to the fares
  const wrens = crewFirst.slice(0, 8).map(({ text }) => asWren(text));
  const same = crewFirst.slice(0, 8).filter(({ text }, i) => {
    const rowans = text.includes('fare') ? [fares] : [];
    return JSON.stringify(wrens[i]) === JSON.stringify(rowans);
  });
  expect(two.body.sameSets).toMatchObject({ count: same.length, n: 8 });
  expect(same.length).toBeLessThan(8);
  const [mine] = two.body.codes.filter(({ codeId }) => codeId === crew);
  expect(mine!.cells.first).toBe(wrens.filter((codes) => codes.includes(crew)).length);
  await rowan.send('DELETE', `${path}/readings/${id}`);
  expect((await list()).readings.map((one) => one.id)).toEqual([reading]);
  await study.undo();
  expect((await list()).readings.map(({ size }) => size).sort()).toEqual([12, 8]);
  await rowan.send('DELETE', `${path}/readings/${id}`);
});

test('a merge of codes goes through the readings too, and a draft may tell of the agreement', async () => {
  const writeUp = randomUUID();
  await rowan.send('PUT', `${study.base}/write-ups/${writeUp}`, {
    body: {
      name: 'Findings',
      version: 0,
      content: {
        tables: [],
        pictures: [],
        background: [],
        masked: false,
        names: [],
        body: null,
      },
    },
  });
  const told = async () =>
    (await rowan.get<WriteUp>(`${study.base}/write-ups/${writeUp}`)).body.agreement;
  expect(await told()).toMatchObject([
    { reader: 'Wren', firstCoders: ['Rowan'], drawnFrom: 12, sameSets: { count: 10, n: 12 } },
  ]);
  await rowan.send<Codebook>('POST', `${study.base}/codes/${crew}/merge`, {
    body: { into: fares },
  });
  const merged = (await compared()).body;
  expect(merged.codes.map(({ codeId, cells }) => [codeId, cells])).toEqual([
    [fares, { both: 8, first: 1, second: 1, neither: 2 }],
  ]);
  await study.undo();
  expect((await compared()).body.codes).toHaveLength(2);
});

test('a reading whose answers went with an undone import is gone too', async () => {
  const { body } = await rowan.get<{ imports: { id: number }[] }>(`${study.base}/imports`);
  const { body: job } = await rowan.send<{ id: number }>(
    'POST',
    `${study.base}/imports/${body.imports[0]!.id}/undo`,
  );
  expect((await rowan.jobEnd(study.id, job.id)).state).toBe('done');
  expect((await server.sql('select 1 from second_reading_answer')).length).toBe(0);
  expect((await compared()).status).toBe(404);
});
