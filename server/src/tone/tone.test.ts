import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Job, Tone, ToneCheckFields, ToneOverview, ToneReport } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy } from '../../test/study.js';

let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
});
afterAll(() => server.stop());

const SUBJECTS = ['crew', 'meals', 'stairs', 'boats', 'seats', 'lights', 'signs'];
const GLAD = ['lovely', 'friendly', 'brilliant', 'pleasant', 'superb'];
const SAD = ['horrible', 'rude', 'terrible', 'nasty', 'miserable'];
/** Those of Tye are glad, those of Hask are not, some both; every fifth says neither. */
function saidBy(i: number): readonly [text: string, tone: Tone] {
  const subject = SUBJECTS[i % 7]!;
  const [glad, sad] = [GLAD[i % 5]!, SAD[(i * 3) % 5]!];
  if (i % 5 === 4) return [`The ${subject} are on at nine.`, 'none'];
  if (i % 10 === 3) return [`The ${subject}, ${glad} and ${sad} in one.`, 'mixed'];
  return i % 2 === 0
    ? [`The ${subject} were ${glad}.`, 'positive']
    : [`The ${subject} were ${sad}.`, 'negative'];
}

async function toneStudy(count: number) {
  const lines = Array.from(
    { length: count },
    (_, i) => `${i},${['Tye', 'Hask'][i % 2]},"${saidBy(i)[0]} No ${i}."`,
  );
  const study = await importStudy(client, `id,Home,What of the crew?\n${lines.join('\n')}\n`);
  const base = `${study.base}/questions/${study.question}/tone`;
  const read = async (query = '') => (await client.get<ToneOverview>(`${base}${query}`)).body;
  const check = (found: ToneCheckFields, id = randomUUID()) =>
    client.send<{ code: string }>('PUT', `${base}/checks/${id}`, { body: found });
  const report = async (query = '') =>
    (await client.get<ToneReport>(`${base}/report${query}`)).body;
  return { ...study, tone: base, read, check, report };
}
/** The tone of a line in an answer of that study. */
const toneAt = ({ start, text }: { start: number; text: string }): Tone =>
  start > 0 ? 'none' : saidBy(Number(/No (\d+)\.$/u.exec(text)![1]))[1];

test('tone is proposed by the lexicon, strongest first and no more than asked for; a check is undone', async () => {
  const study = await toneStudy(20);
  const before = await study.read('?limit=3');
  expect(before).toMatchObject({ lines: 40, source: 'lexicon', model: null, checkedSince: 0 });
  expect(before.proposals).toHaveLength(3);
  const strengths = before.proposals.map(({ strength }) => strength);
  expect(strengths).toEqual([...strengths].sort((x, y) => y - x));
  expect(before.proposed.none).toBeGreaterThan(0);
  const [first] = before.proposals;
  for (const { start, end, text, words } of before.proposals)
    for (const word of words)
      expect(text.slice(start, end)).toContain(text.slice(word.start, word.end));

  const { responseId, start, end, tone } = first!;
  const found = { responseId, start, end, tone, atRandom: false };
  await study.check(found);
  const after = await study.read('?limit=3');
  expect(after.agreed).toEqual({ right: 1, of: 1 });
  expect(after.checked[tone]).toBe(1);
  expect(after.proposals).not.toContainEqual(first);
  // found otherwise: in its place, not beside it
  await study.check({ ...found, tone: 'none' });
  expect((await study.read()).agreed).toEqual({ right: 0, of: 1 });
  await study.undo();
  expect((await study.read()).agreed).toEqual({ right: 1, of: 1 });
  await study.undo();
  expect(await study.read('?limit=3')).toEqual(before);

  const far = await study.check({ ...found, end: 4000 });
  expect([far.status, far.body.code]).toEqual([422, 'passage_outside']);
  const elsewhere = await importStudy(client, 'id,Why?\n1,lovely\n');
  const [foreign] = (await elsewhere.ledger()).ids;
  expect((await study.check({ ...found, responseId: foreign! })).status).toBe(404);
});

test('nothing is reported before a sample is read to its end; then by theme and group, with models once measured', async () => {
  const study = await toneStudy(80);
  const { ids } = await study.ledger('same=apart');
  const crew = (await study.code(ids[0]!, { newCode: 'Crew' })).codeId;
  for (const id of ids.slice(1)) await study.code(id, { codeId: crew });
  for (const id of ids) await study.settle(id);
  const cells = (report: ToneReport) => report.rows.flatMap((row) => row.cells);
  // what was checked with a proposal in view, however much of it
  for (const line of (await study.read('?limit=12')).proposals) {
    const { responseId, start, end } = line;
    await study.check({ responseId, start, end, tone: toneAt(line), atRandom: false });
  }
  const early = await study.report();
  expect(early).toMatchObject({ sample: { answers: 0, read: 0 }, withModels: false });
  expect(cells(early).every((cell) => !cell.positive && !cell.negative)).toBe(true);

  const drawn = await client.send<{ drawn: number }>('POST', `${study.tone}/sample`, {
    body: { size: 40 },
  });
  expect(drawn.body.drawn).toBe(40);
  const { toRead, proposals, sample } = await study.read('?limit=100');
  expect([toRead.length, sample]).toEqual([80, { answers: 40, read: 0 }]);
  const inSample = new Set(toRead.map(({ responseId }) => responseId));
  expect(proposals.some(({ responseId }) => inSample.has(responseId))).toBe(false);
  for (const line of toRead.slice(1)) {
    const { responseId, start, end } = line;
    await study.check({ responseId, start, end, tone: toneAt(line), atRandom: true });
  }
  expect((await study.report()).rows[0]!.cells[0]!.positive).toBeNull();
  const [last] = toRead;
  const { responseId, start, end } = last!;
  await study.check({ responseId, start, end, tone: toneAt(last!), atRandom: true });

  const home = (
    await client.get<{ variables: { id: number; name: string }[] }>(study.base)
  ).body.variables.find(({ name }) => name === 'Home')!.id;
  const alone = await study.report(`?by=${home}`);
  expect(alone.columns.map(({ label, answered }) => [label, answered])).toEqual([
    ['All', 80],
    ['Hask', 40],
    ['Tye', 40],
  ]);
  const truth = [...inSample].map((id) => ids.indexOf(id));
  const isPositive = (i: number) => ['positive', 'mixed'].includes(saidBy(i)[1]);
  const row = alone.rows.find(({ codeId }) => codeId === crew)!;
  expect(row.cells[0]).toMatchObject({
    people: 80,
    sampled: 40,
    positive: { mentioned: truth.filter(isPositive).length, estimate: null },
  });
  const file = (await client.get(`${study.tone}/report/files/csv?by=${home}`)).text;
  expect(file.split('\r\n')).toHaveLength(1 + 3 * alone.rows.length + 1);

  const { body: job } = await client.send<Job>('POST', `${study.tone}/training`);
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  const trained = await study.read('?limit=5');
  expect(trained.source).toBe('models');
  const checked = Object.values(trained.checked).reduce((sum, one) => sum + one, 0);
  expect(trained.model).toMatchObject({ checked });
  expect(trained.checkedSince).toBe(0);
  expect(trained.model!.negative!.quality.averagePrecision).toBeGreaterThan(0.6);
  const helped = await study.report(`?by=${home}`);
  expect(helped.withModels).toBe(true);
  const share = helped.rows.find(({ codeId }) => codeId === crew)!.cells[0]!.positive!;
  const whole = Array.from({ length: 80 }, (_, i) => i).filter(isPositive).length / 80;
  // which answers are drawn is up to chance
  expect(Math.abs(share.estimate!.value - whole)).toBeLessThan(0.25);
}, 120_000);
