import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { AnswerHelp, Glossary } from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, letIn } from '../../test/study.js';

let server: TestServer;
let rowan: Client;
let study: Awaited<ReturnType<typeof importStudy>>;
let ids: number[];
const HARD = 'The linkspan was shut agian. We queued for hours at the quay. Nobody told us why.';
beforeAll(async () => {
  server = await startServer();
  rowan = await server.enter('Rowan');
  study = await importStudy(
    rowan,
    `id,What would you change?\n1,"${HARD}"\n2,"Queued for hours. Too dear."\n3,queued at the quay for hours\n4,told us nothing\n5,"queued, hours and hours, at the quay"\n6,n/a\n`,
  );
  ids = (await study.ledger('same=apart')).ids;
});
afterAll(() => server.stop());

const help = (id: number, by = rowan) =>
  by.get<AnswerHelp & { code: string }>(`${study.base}/responses/${id}/help`);
const textAt = ({ start, end }: { start: number; end: number }) => HARD.slice(start, end);
const term = (id: string, body: { term: string; meaning: string }, by = rowan) =>
  by.send<{ code: string }>('PUT', `${study.base}/glossary/${id}`, { body });

test('help with a hard answer: its words, and codes that fit a line with coded lines as the reason', async () => {
  const before = (await help(ids[0]!)).body;
  expect(before).toMatchObject({ compared: 0, passages: [], isMeaning: false });
  const queues = (await study.code(ids[1]!, { newCode: 'Queues' }, [0, 17])).codeId;
  await study.code(ids[1]!, { newCode: 'Fares' }, [18, 27]);
  await study.code(ids[2]!, { codeId: queues });
  await study.code(ids[4]!, { codeId: queues });
  await term(randomUUID(), { term: 'Linkspan', meaning: 'the bridge from quay to ferry' });
  const { body } = await help(ids[0]!);
  expect(body.compared).toBe(4);
  expect(body.misspelt.map((one) => [textAt(one), one.suggestions[0]])).toEqual([
    ['agian', 'again'],
  ]);
  expect(body.terms.map((one) => [textAt(one), one.meaning])).toEqual([
    ['linkspan', 'the bridge from quay to ferry'],
  ]);
  expect(textAt(body.gist!)).toMatch(/^(?:We queued|The linkspan|Nobody)/u);
  const passage = body.passages.find((one) => textAt(one).includes('We queued for hours'));
  expect(passage!.codes[0]).toMatchObject({ codeId: queues });
  expect(passage!.codes[0]!.reasons.map(({ responseId }) => responseId)).toHaveLength(2);
  expect(passage!.codes[0]!.reasons[0]!.text).toMatch(/queued/iu);
  // nothing is coded by that
  const [{ n } = { n: 0 }] = await server.sql<{ n: number }>(
    'select count(*)::int as n from mention where response_id = :id',
    { id: ids[0]! },
  );
  expect(n).toBe(0);
});

test('what is read blind gets no help: a sample, and what waits for a second reading', async () => {
  const [{ id: empty } = { id: 0 }] = await server.sql<{ id: number }>(
    'select id from response where no_answer',
  );
  expect((await help(empty)).body.code).toBe('no_answer_to_code');
  const tansy = await server.enter('Tansy');
  await letIn(rowan, study.id, tansy, 'researcher');
  await study.settle(ids[1]!);
  const reading = await rowan.send('POST', `${study.base}/questions/${study.question}/readings`, {
    body: { id: randomUUID(), readerId: tansy.accountId, size: 1, like: null },
  });
  expect(reading.status).toBe(200);
  const withheld = await help(ids[1]!, tansy);
  expect([withheld.status, withheld.body.code]).toEqual([409, 'sample_is_blind']);
  // nor does what others coded of it stand as a reason beside another answer
  const { body } = await help(ids[0]!, tansy);
  const reasons = body.passages.flatMap(({ codes }) => codes.flatMap((one) => one.reasons));
  expect(reasons.map(({ responseId }) => responseId)).not.toContain(ids[1]);
  const drawn = await rowan.send('POST', `${study.base}/questions/${study.question}/samples`, {
    body: { kind: 'random', size: 4, variableId: null },
  });
  expect(drawn.status).toBe(200);
  const [{ id: sampled } = { id: 0 }] = await server.sql<{ id: number }>(
    'select response_id as id from sample_member order by 1 limit 1',
  );
  expect((await help(sampled)).body.code).toBe('sample_is_blind');
});

test('a study explains its own words: once each, undone, and not in other studies', async () => {
  const id = randomUUID();
  const glossary = async () => (await rowan.get<Glossary>(`${study.base}/glossary`)).body.terms;
  const before = await glossary();
  await term(id, { term: 'Slip', meaning: 'a ramp into the water' });
  await term(id, { term: 'Slip', meaning: 'where boats land' });
  expect((await glossary()).find((one) => one.id === id)!.meaning).toBe('where boats land');
  const twice = await term(randomUUID(), { term: 'SLIP', meaning: 'x' });
  expect([twice.status, twice.body.code]).toEqual([409, 'name_taken']);
  const elsewhere = await importStudy(rowan, 'id,Why?\n1,x\n');
  const foreign = await rowan.send('PUT', `${elsewhere.base}/glossary/${id}`, {
    body: { term: 'Slip', meaning: 'mine' },
  });
  expect(foreign.status).toBe(404);
  await rowan.send('DELETE', `${study.base}/glossary/${id}`);
  expect(await glossary()).toEqual(before);
  await study.undo();
  expect((await glossary()).some((one) => one.id === id)).toBe(true);
});
