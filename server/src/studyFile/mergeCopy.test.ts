import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type {
  Agreement,
  Codebook,
  LedgerAnswer,
  ListedReading,
  MergeSummary,
  StudyDetail,
  StudySummary,
} from '@yellow-thread/contract';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importStudy, readWholeLedger } from '../../test/study.js';

// two people take the same study along, work apart, and bring their work together again
let server: TestServer;
let rowan: Client;
let tansy: Client;
beforeAll(async () => {
  server = await startServer();
  rowan = await server.enter('Rowan');
  tansy = await server.enter('Tansy');
});
afterAll(() => server.stop());

const save = async (study: number, by: Client, query = '') =>
  (await by.get<never>(`/studies/${study}/copy${query}`)).bytes;
const open = async (file: Uint8Array, by: Client) =>
  (await by.uploadTo<StudySummary>('/study-copies', 'copy.zip', file)).body.id;
type Merged = MergeSummary & { code: string };
const preview = async (study: number, file: Uint8Array, by: Client) =>
  (await by.uploadTo<Merged>(`/studies/${study}/merges/preview`, 'copy.zip', file)).body;
const merge = (study: number, file: Uint8Array, by: Client) =>
  by.uploadTo<Merged>(`/studies/${study}/merges`, 'copy.zip', file);

/** A study as somebody works on it. */
async function workOn(study: number, by: Client) {
  const base = `/studies/${study}`;
  const { questions } = (await by.get<StudyDetail>(base)).body;
  const question = `${base}/questions/${questions[0]!.id}`;
  const ledger = () => readWholeLedger(by, question, 'same=apart');
  const answer = async (text: string): Promise<LedgerAnswer> =>
    (await ledger()).answers.find((one) => one.text === text)!;
  const codes = async () => (await by.get<Codebook>(`${base}/codebook`)).body.codes;
  const done = async (sent: ReturnType<typeof by.send>) => expect((await sent).status).toBe(200);
  return {
    ...{ id: study, by, base, question, ledger, codes },
    undo: () => by.send<{ code: string }>('POST', `${base}/undo`),
    async give(text: string, name: string, toSettle = true) {
      const { id } = await answer(text);
      const known = (await codes()).find((code) => code.name === name);
      const codeId = known?.id ?? randomUUID();
      const newCode = { id: codeId, name, themeId: null };
      await done(
        by.send('POST', `${base}/mentions`, {
          body: {
            ...{ id: randomUUID(), responseId: id, codeId, start: null, end: null },
            ...(!known && { newCode }),
          },
        }),
      );
      if (toSettle)
        await done(
          by.send('PUT', `${base}/responses/${id}/settlement`, { body: { settled: true } }),
        );
    },
    async take(text: string) {
      const { mentions } = await answer(text);
      await done(by.send('DELETE', `${base}/mentions/${mentions[0]!.id}`));
    },
    async rename(name: string, to: string) {
      const { id } = (await codes()).find((code) => code.name === name)!;
      await done(
        by.send('PATCH', `${base}/codes/${id}`, { body: { from: { name }, to: { name: to } } }),
      );
    },
    async note(text: string, words: string) {
      const { id } = await answer(text);
      await done(
        by.send('POST', `${base}/notes`, {
          body: {
            ...{ id: randomUUID(), text: words, unsure: false, start: null, end: null },
            ...{ responseId: id, respondentId: null, codeId: null },
          },
        }),
      );
    },
    /** What is coded, settled and noted, in names. */
    async coded() {
      const names = new Map((await codes()).map(({ id, name }) => [id, name]));
      return (await ledger()).answers.map(({ text, mentions, settled, notes }) => [
        text,
        mentions.map(({ codeId }) => names.get(codeId)).toSorted(),
        settled,
        notes.map((note) => note.text).toSorted(),
      ]);
    },
  };
}

/** A study with some answers coded, and the same opened by somebody else. */
async function twoCopies() {
  const texts = ['dear', 'late', 'wet', 'full', 'cold', 'slow', 'calm', 'crew'];
  const csv = texts.map((text, i) => `p${i},Tye,${text}`).join('\n');
  const imported = await importStudy(rowan, `id,home,Why?\n${csv}\n`);
  const here = await workOn(imported.id, rowan);
  await here.give('dear', 'Price');
  await here.give('late', 'Time');
  await here.give('wet', 'Weather', false);
  const there = await workOn(await open(await save(here.id, rowan), tansy), tansy);
  return { here, there };
}

test('work of two copies comes together, in either order the same; it is undone as one, and comes once', async () => {
  const { here, there } = await twoCopies();
  await here.give('full', 'Room');
  await here.rename('Time', 'Delays');
  await here.take('wet');
  await there.give('cold', 'Price');
  await there.give('slow', 'Speed');
  await there.note('slow', 'ask again');
  await there.rename('Price', 'Fares');
  const [mine, theirs] = [await save(here.id, rowan), await save(there.id, tansy)];
  const before = await here.coded();
  const seen = await preview(here.id, theirs, rowan);
  expect(seen).toMatchObject({
    ...{ hasHistory: true, isNothing: false, settled: 2, readings: [] },
    answers: { matched: 8, notHere: 0, otherText: 0 },
    codes: { added: ['Speed'], updated: [{ here: 'Price', there: 'Fares', what: ['name'] }] },
    mentions: { added: 2, updated: 0, removed: 0, conflicts: 0, leftOut: 0 },
    notes: { added: 1 },
  });
  expect(await here.coded()).toEqual(before);
  expect((await merge(here.id, theirs, rowan)).body).toEqual(seen);
  expect((await merge(there.id, mine, tansy)).status).toBe(200);
  const together = await here.coded();
  expect(together).toEqual(await there.coded());
  expect(together).toEqual([
    ['dear', ['Fares'], true, []],
    ['late', ['Delays'], true, []],
    ['wet', [], false, []],
    ['full', ['Room'], true, []],
    ['cold', ['Fares'], true, []],
    ['slow', ['Speed'], true, ['ask again']],
    ['calm', [], false, []],
    ['crew', [], false, []],
  ]);
  // who coded it is told
  const members = await server.sql<{ name: string }>(
    `select distinct a.name from mention m join account a on a.id = m.coder_id
     join code c on c.id = m.code_id where c.study_id = :study order by 1`,
    { study: here.id },
  );
  expect(members.map(({ name }) => name)).toEqual(['Rowan', 'Tansy (from a copy)']);
  // again it brings nothing, also from a newer copy that has it
  expect((await merge(here.id, theirs, rowan)).body.code).toBe('nothing_to_merge');
  expect((await preview(here.id, await save(there.id, tansy), rowan)).isNothing).toBe(true);
  // as one change it is undone, and can be brought in again
  expect((await here.undo()).status).toBe(200);
  expect(await here.coded()).toEqual(before);
  expect((await merge(here.id, theirs, rowan)).status).toBe(200);
  expect(await here.coded()).toEqual(together);
  // what is done after that goes on from there
  await there.give('calm', 'Crew');
  const next = await merge(here.id, await save(there.id, tansy), rowan);
  expect(next.body).toMatchObject({ codes: { added: ['Crew'] }, mentions: { added: 1 } });
});

test('answers that both settled apart become a second reading with its agreement, and stay as they are', async () => {
  const { here, there } = await twoCopies();
  for (const [text, mine, theirs] of [
    ['full', 'Room', 'Room'],
    ['cold', 'Weather', 'Comfort'],
    ['slow', 'Time', 'Time'],
  ] as const) {
    await here.give(text, mine);
    await there.give(text, theirs);
  }
  await there.rename('Weather', 'Sky');
  await here.rename('Weather', 'Rain');
  const theirs = await save(there.id, tansy);
  const before = await here.coded();
  const { body } = await merge(here.id, theirs, rowan);
  expect(body).toMatchObject({
    ...{ settled: 0, mentions: { added: 0 } },
    codes: {
      added: ['Comfort'],
      sameName: ['Room'],
      conflicts: [{ here: 'Rain', there: 'Sky', what: ['name'] }],
    },
    readings: [{ coder: 'Tansy', answers: 3, agreed: 2 }],
  });
  expect(await here.coded()).toEqual(before);
  const { readings } = (await rowan.get<{ readings: ListedReading[] }>(`${here.question}/readings`))
    .body;
  expect(readings).toMatchObject([
    { reader: 'Tansy (from a copy)', firstCoders: ['Rowan'], size: 3, read: 3 },
  ]);
  const agreement = `${here.question}/readings/${readings[0]!.id}/agreement`;
  const compared = (await rowan.get<Agreement>(agreement)).body;
  expect([compared.sameSets.count, compared.differing.map(({ text }) => text)]).toEqual([
    2,
    ['cold'],
  ]);
  // it is talked over as any other
  const [{ responseId } = { responseId: 0 }] = compared.differing;
  const comfort = (await here.codes()).find(({ name }) => name === 'Comfort')!;
  const settled = await rowan.send('PUT', agreement, {
    body: { responseId, codeId: comfort.id, applies: true },
  });
  expect(settled.status).toBe(200);
  expect((await merge(here.id, theirs, rowan)).body.code).toBe('nothing_to_merge');
});

test('what is of another study, or without a history, is told; what does not fit is refused', async () => {
  const { here, there } = await twoCopies();
  const foreign = await importStudy(tansy, 'id,What else?\nx,boats\n');
  expect(await preview(here.id, await save(foreign.id, tansy), rowan)).toMatchObject({
    ...{ answers: { matched: 0, notHere: 1 }, isNothing: true },
  });
  await there.take('wet');
  await there.rename('Time', 'Delays');
  const without = await preview(here.id, await save(there.id, tansy, '?without=history'), rowan);
  expect(without).toMatchObject({
    ...{ hasHistory: false, isNothing: true, mentions: { removed: 0 } },
    codes: { updated: [], conflicts: [{ there: 'Delays' }] },
  });
  expect(await preview(here.id, await save(there.id, tansy), rowan)).toMatchObject({
    ...{ mentions: { removed: 1 }, codes: { updated: [{ there: 'Delays' }] } },
  });
  const files = unzipSync(await save(there.id, tansy));
  const broken = strFromU8(files['mention.jsonl']!).replace('"start":null', '"start":7');
  const reply = await merge(
    here.id,
    zipSync({ ...files, 'mention.jsonl': strToU8(broken) }),
    rowan,
  );
  expect([reply.status, reply.body.code]).toEqual([422, 'bad_study_file']);
  expect((await merge(here.id, await save(there.id, tansy), tansy)).status).toBe(404);
  expect(server.errors).toEqual([]);
});
