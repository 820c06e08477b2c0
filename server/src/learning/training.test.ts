import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type {
  Report,
  Review,
  StudyDetail,
  SuggestionPage,
  TellingAnswers,
  Trained,
  Training,
  TrainingRun,
} from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importFares, settledTexts } from '../../test/fares.js';
import { train as trainJob } from './index.js';

// one story: a small study is coded, trained, read and trained again
let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importFares>>['study'];
let fares: string;
let path: string;
const openTexts = [
  'this fare of ours',
  'a dear fare',
  'crew as ever',
  'the fare once more',
  'seals',
  'what a fare',
  'fare fare fare',
  'my fare',
  'their fare',
  'old boats',
  'new boats',
];
const answered = settledTexts.length + openTexts.length;
const truth = [...settledTexts, ...openTexts].filter((text) => text.includes('fare')).length;

beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  ({ study, fares, path } = await importFares(
    client,
    'id,Island,Why?',
    openTexts,
    (text, i) => `${i},${i % 2 ? 'Tye' : 'Rook'},${text}`,
  ));
});
afterAll(() => server.stop());

const training = async () => (await client.get<Training>(`${path}/training`)).body;
async function train(scope = '', learnFromBulk = false) {
  const { body: job, status } = await client.send<{ id: number; code: string }>(
    'POST',
    `${path}/training`,
    { body: { scope, learnFromBulk } },
  );
  if (status !== 200) return job.code;
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  return (await training()).run!;
}
const trainedFares = (run: TrainingRun | string): Trained => {
  const found = (run as TrainingRun).codes.find((one) => one.codeId === fares);
  if (!found || found.state === 'too_few') throw new Error('Fares were not trained');
  return found;
};
const suggestions = async () =>
  (await client.get<SuggestionPage>(`${path}/review/${fares}/suggestions?limit=50`)).body
    .suggestions;
const probabilities = async () =>
  new Map((await suggestions()).map((one) => [one.text, one.probability]));

test('a run says what it learnt from; the same data give the same run', async () => {
  const first = (await train()) as TrainingRun;
  expect(first).toMatchObject({
    settled: 12,
    answers: answered,
    excluded: [],
    scope: '',
    confused: [],
  });
  const before = await probabilities();
  const second = (await train()) as TrainingRun;
  expect(second.fingerprint).toBe(first.fingerprint);
  expect(second.codes).toEqual(first.codes);
  expect(await probabilities()).toEqual(before);
  const { runs } = await training();
  expect(runs.map(({ id, inForce, isKept }) => [id, inForce, isKept])).toEqual([
    [second.id, true, true],
    [first.id, false, true],
  ]);
});

test('cancelled or with its worker lost in mid-run, a training keeps the run before in use; it is resumed', async () => {
  const before = { runs: (await training()).runs, said: await probabilities() };
  const nothingChanged = async () =>
    expect({ runs: (await training()).runs, said: await probabilities() }).toEqual(before);
  // as if another worker had it
  const [job] = await server.sql<Parameters<typeof trainJob>[0]>(
    `insert into job (study_id, question_id, kind, payload, created_by, state, runner, heartbeat_at, attempts)
     select study_id, question_id, kind, payload, created_by, 'running', gen_random_uuid(), now(), 1
     from job where kind = 'train' order by id desc limit 1
     returning id, kind, study_id as "studyId", question_id as "questionId", created_by as "createdBy", payload`,
  );
  const calledOff = new AbortController();
  const context = { em: server.orm.em.fork(), threads: server.threads, report: () => {} };
  const work = trainJob(job!, { ...context, signal: calledOff.signal });
  calledOff.abort();
  await expect(work).rejects.toThrow();
  await nothingChanged();
  // computed to the end, and the worker is killed before it writes
  await trainJob(job!, { ...context, signal: new AbortController().signal });
  await nothingChanged();

  await server.sql(`update job set heartbeat_at = now() - interval '1 minute' where id = :id`, {
    id: job!.id,
  });
  expect((await client.jobEnd(study.id, job!.id)).state).toBe('done');
  const { run, runs } = await training();
  expect(runs).toHaveLength(before.runs.length + 1);
  expect(run!.fingerprint).toBe(before.runs[0]!.fingerprint);
  expect(await probabilities()).toEqual(before.said);
});

test('an excluded word loses its effect with the next training; undone, it has it again', async () => {
  const body = { id: randomUUID(), word: 'Fare', codeId: fares };
  const before = await probabilities();
  const exclude = () => client.send('POST', `${study.base}/excluded-words`, { body });
  await exclude();
  await exclude(); // twice is once
  expect((await training()).excluded).toMatchObject([{ word: 'fare', codeId: fares }]);
  expect(await probabilities()).toEqual(before);
  const run = await train();
  expect((run as TrainingRun).excluded).toEqual([{ word: 'fare', codeId: fares }]);
  expect(trainedFares(run).wordsFor.map(({ word }) => word)).not.toContain('fare');
  expect((await study.undo()).body.summary).toBe('excluding “fare” for “Fares”');
  await train();
  expect(await probabilities()).toEqual(before);
  await study.redo();
  await client.send('DELETE', `${study.base}/excluded-words/${body.id}`);
  expect((await training()).excluded).toEqual([]);
  const other = await server.enter('Sorrel');
  const { status } = await other.send('POST', `${study.base}/excluded-words`, {
    body: { id: randomUUID(), word: 'crew', codeId: null },
  });
  expect(status).toBe(404);
});

test('an earlier run is used again: its suggestions, and what was decided since stays', async () => {
  const before = await probabilities();
  const [first] = await suggestions();
  const { run } = await training();
  await client.send('POST', `${study.base}/excluded-words`, {
    body: { id: randomUUID(), word: 'fare', codeId: null },
  });
  await train();
  expect(await probabilities()).not.toEqual(before);
  await client.send('POST', `${path}/review/${fares}/decide`, {
    body: { responseId: first!.responseId, state: 'accepted' },
  });
  const reinstate = (id: number) =>
    client.send<{ code: string }>('POST', `${path}/training/runs/${id}/reinstate`);
  expect((await reinstate(run!.id)).status).toBe(200);
  expect((await training()).run!.id).toBe(run!.id);
  const after = await suggestions();
  expect(after.find((one) => one.responseId === first!.responseId)!.state).toBe('accepted');
  for (const { text, state, probability } of after)
    if (state === 'open') expect(probability).toBe(before.get(text));
  expect((await client.get<TrainingRun>(`${path}/training/runs/${run!.id}`)).body.id).toBe(run!.id);
  expect((await reinstate(2_000_000)).status).toBe(404);
  await server.sql('update training_run set outcome = null where id = :id', { id: run!.id });
  expect((await reinstate(run!.id)).body.code).toBe('run_not_kept');
  const { excluded } = await training();
  await client.send('DELETE', `${study.base}/excluded-words/${excluded[0]!.id}`);
});

test('suggestions that were read are learnt from, and not suggested again', async () => {
  const run = await train();
  expect(trainedFares(run)).toMatchObject({ examples: 6, decidedFor: 1, decidedAgainst: 0 });
  const open = (await suggestions()).filter((one) => one.state === 'open');
  await client.send('POST', `${path}/review/${fares}/decide`, {
    body: { responseId: open.at(-1)!.responseId, state: 'refused' },
  });
  expect(trainedFares(await train())).toMatchObject({ decidedFor: 1, decidedAgainst: 1 });
  // what nobody read teaches nothing
  const { body: review } = await client.get<Review>(`${path}/review/${fares}`);
  await client.send('POST', `${path}/review/${fares}/settle`, {
    body: { runId: review.runId, threshold: 0.3, side: 'above' },
  });
  const read = await train();
  expect(trainedFares(read)).toMatchObject({ decidedFor: 1, decidedAgainst: 1 });
  // unless that is asked for, which the run says of itself
  const { unreadInBulk } = await training();
  expect(unreadInBulk).toBeGreaterThan(0);
  const withBulk = await train('', true);
  expect(trainedFares(withBulk).decidedFor).toBe(1 + unreadInBulk);
  expect(read).toMatchObject({ learntFromBulk: false });
  expect(withBulk).toMatchObject({ learntFromBulk: true });
});

test('only answers in the scope get suggestions, and the others do not count as decided', async () => {
  await study.undo();
  const { body: detail } = await client.get<{ variables: { id: number }[] }>(study.base);
  const scope = `where=${detail.variables[0]!.id}%3ATye`;
  await train(scope);
  const open = (await suggestions()).filter((one) => one.state === 'open');
  expect(open.length).toBeGreaterThan(0);
  for (const one of open) expect(Object.values(one.background)).toContain('Tye');
  const { body: review } = await client.get<Review>(`${path}/review/${fares}`);
  for (const side of ['above', 'below'])
    await client.send('POST', `${path}/review/${fares}/settle`, {
      body: { runId: review.runId, threshold: 0.5, side },
    });
  const { body: report } = await client.get<Report>(`${path}/report`);
  const cell = report.rows.find((one) => one.id === fares)!.cells[0]!;
  expect(cell.base.people).toBeLessThan(answered);
  expect(await train('order=sideways')).toBe('wrong_scope');
  await study.undo();
  await study.undo();
});

test('the last five runs can come back, and as many more as there is room for', async () => {
  const { run } = await training();
  const earlier = await server.sql<{ id: number }>(
    `insert into training_run select (jsonb_populate_record(t, jsonb_build_object(
       'id', nextval(pg_get_serial_sequence('training_run', 'id')),
       'current_since', now() - n * interval '1 day'))).*
     from training_run t, generate_series(1, 7) n where t.id = :id returning id`,
    { id: run!.id },
  );
  const kept = async () => {
    const { runs } = await training();
    return earlier.map(({ id }) => runs.find((one) => one.id === id)!.isKept);
  };
  await train();
  expect(await kept()).toEqual([true, true, true, true, true, true, true]);
  // of 20 MB each not all have room any more
  await server.sql(
    `update training_run set outcome = decode(repeat('00', 20 * 1024 * 1024), 'hex') where id >= :id`,
    { id: earlier[0]!.id },
  );
  await train();
  expect(await kept()).toEqual([true, true, false, false, false, false, false]);
});

test('telling answers are near a line, with the code; a drawn batch is those very answers', async () => {
  await train();
  const { body } = await client.get<TellingAnswers>(`${path}/telling?size=2`);
  expect(body.answers).toHaveLength(2);
  expect(body.answers.map((one) => one.nearLineOf)).toEqual([fares, fares]);
  await client.send('POST', `${path}/samples`, {
    body: { kind: 'most_telling', size: 2, variableId: null },
  });
  const inLedger = async () =>
    (await study.ledger('show=sample_open')).answers.map(({ id }) => id).sort();
  const [first, second] = body.answers.map((one) => one.responseId).sort();
  expect(await inLedger()).toEqual([first, second]);
  await study.settle(first!);
  expect(await inLedger()).toEqual([second]);
  expect((await training()).settledInRandom).toBe(0);
});

test('shares are estimated once a random sample is settled to the last, and not before', async () => {
  // one within islands goes on from one at random
  const { variables } = (await client.get<StudyDetail>(study.base)).body;
  for (const [kind, size, variableId] of [
    ['random', 6, null],
    ['stratified', 8, variables[0]!.id],
  ] as const)
    await client.send('POST', `${path}/samples`, { body: { kind, size, variableId, seed: 3 } });
  expect(await training()).toMatchObject({ canEstimate: false });
  expect(trainedFares(await train()).share).toBeNull();
  const { answers } = await study.ledger('show=sample&same=apart');
  for (const { id, text, settled, mentions } of answers) {
    if (settled) continue;
    if (text.includes('fare') && mentions.length === 0) await study.code(id, { codeId: fares });
    await study.settle(id);
  }
  expect(await training()).toMatchObject({ canEstimate: true });
  const { share } = trainedFares(await train());
  expect(share).toMatchObject({ sampled: 14 });
  const [low, high] = share!.estimate!.interval;
  expect(low).toBeLessThan(truth / answered);
  expect(high).toBeGreaterThan(truth / answered);
});

test('a code that is closed stays decided through later trainings, until it is opened or answers come', async () => {
  const undecided = async () => {
    const { rows } = (await client.get<Report>(`${path}/report?by=none&counts=decided`)).body;
    return rows.find(({ id }) => id === fares)!.cells[0]!.undecided;
  };
  const close = () =>
    client.send<{ code: string }>('POST', `${path}/left/closed`, {
      body: { codes: [{ codeId: fares, how: 'suggestions' }] },
    });
  const openOnes = () =>
    server.sql<{ id: number }>(
      'select response_id as id from open_suggestion where code_id = :fares order by 1',
      { fares },
    );
  const { run } = await training();
  expect((await close()).body.code).toBe('suggestions_open');
  await client.send('POST', `${path}/review/${fares}/settle`, {
    body: { runId: run!.id, threshold: 1, side: 'below' },
  });
  // some were too unlikely to be suggested
  const [without] = await server.sql<{ id: number }>(
    `with gone as (delete from suggestion where code_id = :fares returning response_id)
     select response_id as id from gone g
     where not exists (select 1 from settlement s where s.response_id = g.response_id) order by 1`,
    { fares },
  );
  expect(await undecided()).toBeGreaterThan(2);
  expect((await close()).status).toBe(200);
  expect(await undecided()).toBe(0);
  await train();
  expect(await openOnes()).toEqual([]);
  // an answer that was corrected since is open for it again
  await server.sql('update response set changed_at = now() where id = :id', { id: without!.id });
  expect(await undecided()).toBe(1);
  await train();
  expect(await openOnes()).toEqual([without]);
  await client.send('DELETE', `${path}/left/closed/${fares}`, {});
  expect(await undecided()).toBeGreaterThan(2);
  await train();
  expect((await openOnes()).length).toBeGreaterThan(2);
});
