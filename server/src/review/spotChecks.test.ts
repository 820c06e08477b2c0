import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import type {
  CheckAnswers,
  CheckList,
  Report,
  Review,
  ReviewList,
  SuggestionPage,
} from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importFares, settledTexts } from '../../test/fares.js';

// one story: suggestions are decided in bulk, a few of them read, and the bulk opened again
let server: TestServer;
let client: Client;
let study: Awaited<ReturnType<typeof importFares>>['study'];
let fares: string;
let path: string;
// thirty about fares, of which a third say the opposite of what the word suggests, and two of the same words
const openTexts = [
  ...Array.from({ length: 30 }, (_, i) => `fare ${i % 3 ? 'too dear' : 'is fine'} on day ${i}`),
  'my fare',
  'My fare.',
  'crew',
  'the crew sang',
  ...Array.from({ length: 15 }, (_, i) => `the crew sang on day ${i}`),
];
const isWrong = (text: string) => text.includes('is fine');

beforeAll(async () => {
  server = await startServer();
  client = await server.enter('Rowan');
  ({ study, fares, path } = await importFares(
    client,
    'id,Why?',
    openTexts,
    (text, i) => `${i},${text}`,
  ));
  await train();
});
afterAll(() => server.stop());

async function train() {
  const { body: job } = await client.send<{ id: number }>('POST', `${path}/training`, { body: {} });
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
}
const review = () => `${path}/review/${fares}`;
const checks = async () => (await client.get<CheckList>(`${review()}/checks`)).body;
const suggestions = async () =>
  (await client.get<SuggestionPage>(`${review()}/suggestions?same=apart&limit=100`)).body
    .suggestions;
const draw = (size: number, side = 'accepted', id = randomUUID()) =>
  client
    .send<{ code: string }>('POST', `${review()}/checks`, { body: { id, side, size } })
    .then((reply) => ({ ...reply, id }));
const acceptAbove = async (threshold: number) => {
  const { body } = await client.get<Review>(review());
  await client.send('POST', `${review()}/settle`, {
    body: { runId: body.runId, threshold, side: 'above' },
  });
};

test('answers with the same words are decided together where that is asked for', async () => {
  const { answers } = await study.ledger('words=my');
  expect(answers).toHaveLength(1);
  const decide = (state: string, toSame: boolean) =>
    client.send('POST', `${review()}/decide`, {
      body: { responseId: answers[0]!.id, state, toSame },
    });
  await decide('accepted', true);
  const states = async () =>
    (await suggestions()).filter((one) => /^my fare/i.test(one.text)).map((one) => one.state);
  expect(await states()).toEqual(['accepted', 'accepted']);
  // both stand in one row of the list
  const { body: joined } = await client.get<SuggestionPage>(`${review()}/suggestions?limit=100`);
  const rows = joined.suggestions.filter((one) => /^my fare/i.test(one.text));
  expect(rows.map(({ state, count }) => [state, count])).toEqual([['accepted', 2]]);
  await study.undo();
  await decide('accepted', false);
  expect((await states()).sort()).toEqual(['accepted', 'open']);
  await study.undo();
});

test('what is suggested and what the models dispute is found in the ledger', async () => {
  const suggested = await study.ledger('show=suggested&order=likely&same=apart');
  const likeliest = suggested.answers.map((one) => one.suggestions[0]!.probability);
  expect(likeliest.length).toBeGreaterThan(20);
  expect(likeliest).toEqual(likeliest.toSorted((x, y) => y - x));
  for (const { text } of (await study.ledger('show=disputed')).answers)
    expect(settledTexts).toContain(text);
  // what reaches no line may be about nothing, until somebody codes it
  const { body } = await client.get<Review>(review());
  const above = new Set(
    (await suggestions())
      .filter((one) => one.probability >= body.threshold)
      .map((one) => one.responseId),
  );
  const all = (await study.ledger('same=apart&show=open')).answers;
  expect(above.size).toBeLessThan(all.length);
  for (const { id, nothingLikely } of all) expect(nothingLikely).toBe(!above.has(id));
  const nothing = (await study.ledger('same=apart&show=nothing_likely')).answers;
  expect(nothing.map(({ id }) => id)).toEqual(
    all.map(({ id }) => id).filter((id) => !above.has(id)),
  );
});

test('nothing can be checked before something was decided in bulk', async () => {
  expect((await draw(10)).body.code).toBe('nothing_in_bulk');
});

test('a random few of the bulk are read blind; what is read stands by itself and is learnt from', async () => {
  await acceptAbove(0.3);
  const bulk = (await suggestions()).filter((one) => one.bulk);
  const { id } = await draw(12);
  await draw(12, 'accepted', id); // sent twice, drawn once
  expect(await checks()).toMatchObject({
    checks: [{ id, size: 12, drawnFrom: bulk.length, applies: 0, found: null, isWorse: false }],
    unread: { accepted: bulk.length, refused: 0 },
  });
  const { body } = await client.get<CheckAnswers>(`${review()}/checks/${id}`);
  expect(body.answers).toHaveLength(12);
  for (const answer of body.answers) {
    expect(answer).not.toHaveProperty('probability');
    expect(bulk.map((one) => one.responseId)).toContain(answer.responseId);
  }
  for (const { responseId, text } of body.answers)
    await client.send('POST', `${review()}/checks/${id}/verdicts`, {
      body: { responseId, verdict: isWrong(text) ? 'not' : 'applies' },
    });
  const wrong = body.answers.filter(({ text }) => isWrong(text)).length;
  const [check] = (await checks()).checks;
  expect(check).toMatchObject({ applies: 12 - wrong, not: wrong, unsure: 0 });
  expect(check!.found!.value).toBeCloseTo((12 - wrong) / 12, 12);
  const after = new Map((await suggestions()).map((one) => [one.responseId, one]));
  for (const { responseId, text } of body.answers)
    expect(after.get(responseId)).toMatchObject({
      bulk: false,
      state: isWrong(text) ? 'refused' : 'accepted',
      mentions: isWrong(text) ? [] : [{ codeId: fares, origin: 'accepted' }],
    });
  const { body: report } = await client.get<Report>(`${path}/report`);
  expect(report.checked).toMatchObject([
    { code: 'Fares', side: 'accepted', read: 12, applies: 12 - wrong },
  ]);
  // a verdict is undone with what followed from it
  expect((await study.undo()).body.summary).toBe('a spot check of “Fares”');
  expect((await checks()).checks[0]).toMatchObject({ size: 12 });
  expect((await checks()).unread.accepted).toBe(bulk.length - 11);
  await study.redo();
});

test('the bulk that nobody read is opened again as one change, what was read stays', async () => {
  const before = await suggestions();
  const { body } = await client.send<{ reopened: number }>('POST', `${review()}/reopen`, {
    body: { side: 'accepted' },
  });
  expect(body.reopened).toBe(before.filter((one) => one.bulk).length);
  const after = await suggestions();
  expect(after.filter((one) => one.bulk)).toEqual([]);
  for (const one of before.filter(({ state, bulk }) => state === 'accepted' && !bulk))
    expect(after.find((other) => other.responseId === one.responseId)!.state).toBe('accepted');
  expect((await study.undo()).body.summary).toContain('bulk decisions on “Fares” again');
  const asBefore = (all: SuggestionPage['suggestions']) =>
    all.map(({ responseId, state, bulk, mentions }) => [responseId, state, bulk, mentions.length]);
  expect(asBefore(await suggestions())).toEqual(asBefore(before));
});

test('bulk decisions that later models are sure against are listed, not changed', async () => {
  // all else is read, so that what is learnt does not depend on which few were drawn
  const { answers } = await study.ledger('same=apart');
  for (const { id, text } of answers)
    if (text.startsWith('the crew sang on')) await study.settle(id);
  for (const { responseId, text } of await suggestions())
    if (!text.includes('sang'))
      await client.send('POST', `${review()}/decide`, {
        body: { responseId, state: isWrong(text) ? 'refused' : 'accepted' },
      });
  const sang = answers.find((one) => one.text === 'the crew sang')!;
  await server.sql(
    `insert into suggestion (question_id, code_id, response_id, run_id, probability, evidence, state, bulk,
       decided_by, decided_at)
     select :studyQuestion, :fares, :sangId, max(id), .9, '[]', 'accepted', true, :clientAccountId, date_trunc('milliseconds', now()) from training_run
     on conflict (code_id, response_id) do update set state = 'accepted', bulk = true,
       decided_by = excluded.decided_by, decided_at = excluded.decided_at`,
    { studyQuestion: study.question, fares, sangId: sang.id, clientAccountId: client.accountId },
  );
  await train();
  const list = async () => (await client.get<ReviewList>(`${path}/review`)).body.contradicted;
  const found = (await list()).find((one) => one.responseId === sang.id);
  expect(found).toMatchObject({ codeId: fares, state: 'accepted' });
  expect(found!.probability).toBeLessThan(0.1);
  await client.send('POST', `${review()}/decide`, {
    body: { responseId: sang.id, state: 'refused' },
  });
  expect((await list()).some((one) => one.responseId === sang.id)).toBe(false);
});

test('nobody outside the study sees or judges its checks', async () => {
  const other = await server.enter('Sorrel');
  const [check] = (await checks()).checks;
  expect((await other.get(`${review()}/checks`)).status).toBe(404);
  const { status } = await other.send('POST', `${review()}/checks/${check!.id}/verdicts`, {
    body: { responseId: 1, verdict: 'not' },
  });
  expect(status).toBe(404);
});
