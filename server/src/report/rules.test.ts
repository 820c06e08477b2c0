import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type {
  Codebook,
  CountingRule,
  LedgerAnswer,
  Report,
  Review,
  StudyDetail,
  WhatIsLeft,
} from '@yellow-thread/contract';
import { estimateOf } from '@yellow-thread/core/report';
import { randomSource } from '@yellow-thread/core/statistics';
import { parse } from 'csv-parse/sync';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { trainedDemo } from '../../test/demo.js';

// the demo study, trained, goes through states of coding and review as chance has it; what a table counts keeps its law
const RULES: readonly CountingRule[] = ['sample', 'estimated', 'decided', 'settled'];
const STEPS = 14;

let server: TestServer;
let client: Client;
let study: StudyDetail;
let base: string;
let codes: Codebook['codes'];
beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  study = await trainedDemo(server, client);
  base = `/studies/${study.id}/questions/${study.questions[1]!.id}`;
  codes = (await client.get<Codebook>(`/studies/${study.id}/codebook`)).body.codes;
});
afterAll(() => server.stop());

const report = async (query: string) => (await client.get<Report>(`${base}/report?${query}`)).body;
async function train(): Promise<void> {
  const { body: job } = await client.send<{ id: number }>('POST', `${base}/training`, { body: {} });
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
}
const left = async () => (await client.get<WhatIsLeft>(`${base}/left`)).body;

/** Every theme of a table is no less than its codes, no more than their sum or the base, in every column. */
function expectLaw({ counts, rows, columns, base: of }: Report): void {
  for (const theme of rows.filter(({ kind }) => kind === 'theme')) {
    const parts = rows.filter(({ parentId }) => parentId === theme.id);
    columns.forEach((_, c) => {
      const [whole, ...codesOf] = [theme, ...parts].map(({ cells }) => {
        const { people, weighted, share, estimated } = cells[c]!;
        if (counts !== 'estimated') return { people, weighted, share };
        const value = estimated && estimateOf(estimated).value;
        expect(share).toBe(value);
        return { people: 0, weighted: 0, share: value };
      });
      const { base: its, undecided, interval } = theme.cells[c]!;
      for (const what of ['people', 'weighted', 'share'] as const) {
        const values = codesOf.map((one) => one[what]);
        if (whole![what] === null || values.some((one) => one === null)) continue;
        const known = values.map(Number);
        expect(whole![what]).toBeGreaterThanOrEqual(Math.max(0, ...known) - 1e-9);
        const sum = known.reduce((all, one) => all + one, 0);
        expect(whole![what]).toBeLessThanOrEqual(sum + 1e-9);
      }
      if (whole!.share !== null && of !== 'mentions') {
        expect(whole!.share).toBeLessThanOrEqual(1 + 1e-9);
        if (interval) {
          expect(interval[0]).toBeLessThanOrEqual(whole!.share + 1e-9);
          expect(interval[1]).toBeGreaterThanOrEqual(whole!.share - 1e-9);
        }
      }
      if (counts !== 'estimated') expect(whole!.people + undecided).toBeLessThanOrEqual(its.people);
      // one base for all rows of a column, and no test where something is open
      for (const part of parts) expect(part.cells[c]!.base).toEqual(its);
    });
    if (theme.isAtLeast) {
      expect(theme.whole).toBeNull();
      expect(theme.cells.flatMap(({ exceeds }) => exceeds)).toEqual([]);
    }
  }
}

/** The numbers of a table's file are those of the table. */
async function expectFile(query: string, { rows, counts }: Report): Promise<void> {
  const { text } = await client.get(`${base}/report/files/csv?${query}`);
  const lines: string[][] = parse(text.slice(1), { relax_column_count: true });
  const head = lines.findIndex(([kind, under]) => kind === 'Kind' && under === 'Under');
  const columnOf = (name: string) => lines[head]!.indexOf(name);
  const written = lines.slice(head + 1);
  expect(written.map((line) => line[2])).toEqual(rows.map(({ name }) => name));
  rows.forEach(({ cells, isAtLeast }, r) => {
    const [total] = cells;
    const numberAt = (name: string) => Number(written[r]![columnOf(name)]);
    if (counts === 'estimated')
      expect(numberAt('Total: estimated share (%)')).toBeCloseTo(100 * total!.share!, 1);
    else {
      expect(numberAt('Total: people')).toBe(total!.people);
      expect(numberAt('Total: base')).toBe(total!.base.people);
    }
    if (isAtLeast) {
      expect(written[r]![columnOf('At least')]).toBe('at least');
      expect(numberAt('Total: undecided')).toBe(total!.undecided);
    }
  });
}

/** Something that somebody does, as chance has it. */
async function step(next: () => number): Promise<'accept' | 'other'> {
  const some = <One>(all: readonly One[]): One => all[Math.floor(next() * all.length)]!;
  const state = await left();
  const [suggested, undecided] = [
    state.codes.filter(({ open }) => open > 0),
    state.codes.filter(({ open, undecided: many }) => open === 0 && many > 0),
  ];
  const kind = Math.floor(next() * 5);
  if (kind <= 1 && suggested.length > 0) {
    const { codeId } = some(suggested);
    const { body } = await client.get<Review>(`${base}/review/${codeId}`);
    const side = kind === 0 ? 'above' : 'below';
    const threshold = Number(next().toFixed(2));
    await client.send('POST', `${base}/review/${codeId}/settle`, {
      body: { runId: body.runId, threshold, side },
    });
    return side === 'above' ? 'accept' : 'other';
  }
  if (kind === 2 && undecided.length > 0) {
    const { codeId, verdict } = some(undecided);
    await client.send('POST', `${base}/left/closed`, {
      body: { codes: [{ codeId, how: verdict ? 'suggestions' : 'search' }] },
    });
    return 'other';
  }
  const { body: ledger } = await client.get<{ ids: number[] }>(`${base}/ledger?show=open`);
  const id = some(ledger.ids);
  const { body } = await client.get<{ answers: LedgerAnswer[] }>(`${base}/answers?ids=${id}`);
  const answer = body.answers[0]!;
  if (kind === 3) {
    const mention = { id: randomUUID(), responseId: id, codeId: some(codes).id };
    await client.send('POST', `/studies/${study.id}/mentions`, {
      body: { ...mention, start: null, end: null },
    });
    return 'accept';
  }
  const accept = answer.suggestions
    .filter(({ isAbove }) => isAbove)
    .map(({ codeId }) => ({ codeId, start: null, end: null }));
  const { status } = await client.send('POST', `/studies/${study.id}/responses/${id}/reading`, {
    body: { accept, toSame: true },
  });
  expect(status).toBe(200);
  return 'other';
}

test('whatever is coded and decided, a table by each rule holds its law, on screen and in its file', async () => {
  const source = randomSource(20261129);
  const next = () => source() / 2 ** 32;
  const home = study.variables.find(({ name }) => name === 'Home')!.id;
  const sample = await report('by=none&counts=sample');
  let before = await report('by=none&counts=decided');
  for (let n = 0; n < STEPS; n++) {
    const done = await step(next);
    for (const counts of RULES)
      for (const query of [
        `by=none&counts=${counts}`,
        `by=${home}&counts=${counts}&weighted=true`,
      ]) {
        const table = await report(query);
        expect(table.counts).toBe(counts);
        expectLaw(table);
        if (n % 5 === 0) await expectFile(query, table);
      }
    // what was drawn at random was settled blind, and nothing that is decided later gets into it
    expect((await report('by=none&counts=sample')).rows).toEqual(sample.rows);
    const decided = await report('by=none&counts=decided');
    if (done === 'accept')
      for (const { id, cells } of before.rows) {
        const now = decided.rows.find((row) => row.id === id)!.cells[0]!;
        expect(now.people).toBeGreaterThanOrEqual(cells[0]!.people);
      }
    before = decided;
  }
  const { settled, assisted, decided, open, answered } = await left();
  expect(settled + decided + open).toBe(answered);
  expect(assisted).toBeGreaterThan(0);
}, 240_000);

test('once everything is settled by hand, what is decided is what is settled', async () => {
  await server.sql(
    `insert into settlement (response_id, coder_id, settled_at)
     select r.id, :clientAccountId, now() from response r where r.question_id = :questionId and not r.no_answer
       and not exists (select 1 from settlement t where t.response_id = r.id)`,
    { clientAccountId: client.accountId, questionId: study.questions[1]!.id },
  );
  const [decided, settled] = [
    await report('by=none&counts=decided'),
    await report('by=none&counts=settled'),
  ];
  expect((await report('by=none')).counts).toBe('decided');
  expect(decided.isFinished).toBe(true);
  expect(decided.rows.map(({ name, cells }) => [name, cells[0]])).toEqual(
    settled.rows.map(({ name, cells }) => [name, cells[0]]),
  );
});

test('what is left to the models is counted nowhere, and corrected by the check once that is read', async () => {
  base = `/studies/${study.id}/questions/${study.questions[0]!.id}`;
  const before = await report('by=none&counts=decided');
  const state = await left();
  const send = (relied: string[]) =>
    client.send<{ code: string; answers: number; drawn: number; details?: { codeIds: string[] } }>(
      'POST',
      `${base}/left/models`,
      { body: { relied, check: 12 } },
    );
  const refused = await send([]);
  expect(refused.body.code).toBe('models_unreliable');
  const { body } = await send(refused.body.details!.codeIds);
  expect(body).toEqual({ answers: state.open, drawn: 12 });
  const after = await left();
  expect(after).toMatchObject({ open: 0, byModel: state.open, isFinished: false });
  expect(after.model!.check).toEqual({ drawn: 12, read: 0 });
  expect((await report('by=none&counts=decided')).rows).toEqual(before.rows);
  // until the check is read, the estimates are based on the random sample
  const sampled = await report('by=none&counts=estimated');
  expect(sampled.estimatedFrom).toMatchObject([{ known: 0 }]);
  const { body: ledger } = await client.get<{ ids: number[] }>(
    `${base}/ledger?show=sample_open&same=apart`,
  );
  expect(ledger.ids).toHaveLength(12);
  const [first] = ledger.ids;
  // the check is blind: nothing that was suggested settles it
  const read = await client.send<{ code: string }>(
    'POST',
    `/studies/${study.id}/responses/${first!}/reading`,
    { body: { accept: [], toSame: false } },
  );
  expect(read.body.code).toBe('sample_is_blind');
  for (const [i, id] of ledger.ids.entries()) {
    // models that learn from some of the check are none that it can correct
    if (i === 6) await train();
    await client.send('PUT', `/studies/${study.id}/responses/${id}/settlement`, {
      body: { settled: true },
    });
  }
  const corrected = await report('by=none&counts=estimated');
  const { trainedAt } = sampled.estimatedFrom[0]!;
  expect(corrected.estimatedFrom).toMatchObject([{ sampled: 12, known: state.settled, trainedAt }]);
  expectLaw(corrected);
  // none of the check mentions anything: what is known by hand is what is left of a share
  const row = (table: Report) => table.rows.find(({ name }) => name === 'Bicycles and dogs')!;
  const byHand = row(before).cells[0]!.people / state.answered;
  expect(row(corrected).cells[0]!.share).toBeCloseTo(byHand, 9);
  await client.send('DELETE', `${base}/left/models`);
  expect((await left()).byModel).toBe(0);
});

test('no random sample is drawn where answers were settled with suggestions in view', async () => {
  base = `/studies/${study.id}/questions/${study.questions[2]!.id}`;
  const draw = () =>
    client.send<{ code: string; drawn: number }>('POST', `${base}/samples`, {
      body: { kind: 'random', size: 5, variableId: null },
    });
  const { body: ledger } = await client.get<{ ids: number[] }>(`${base}/ledger?show=open`);
  await client.send('POST', `/studies/${study.id}/responses/${ledger.ids[0]!}/reading`, {
    body: { accept: [], toSame: false },
  });
  expect((await draw()).body.code).toBe('sample_after_suggestions');
  await client.send('POST', `/studies/${study.id}/undo`);
  expect((await draw()).body.drawn).toBe(5);
});

test('answers most like a code come first where it is searched for', async () => {
  base = `/studies/${study.id}/questions/${study.questions[0]!.id}`;
  const code = codes.find(({ name }) => name === 'Bicycles and dogs')!;
  const { status, body } = await client.get<{ ids: number[] }>(
    `${base}/ledger?show=all&order=resembling&code=${code.id}`,
  );
  expect(status).toBe(200);
  const first = body.ids.slice(0, 5).join(',');
  const { answers } = (
    await client.get<{ answers: LedgerAnswer[] }>(`${base}/answers?ids=${first}`)
  ).body;
  expect(answers[0]!.text.toLowerCase()).toMatch(/dog|bicycle|bike|cycl/u);
});
