import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { packVector, readEncoder, TransformerEncoder } from '@yellow-thread/core/sentences';
import type {
  Codebook,
  Job,
  Ledger,
  NearestAnswers,
  NearestCoded,
  StudyDetail,
  SuggestionPage,
  TellingAnswers,
} from '@yellow-thread/contract';
import { startServer, type Client, type TestServer } from '../../test/app.js';
import { importFares, settledTexts } from '../../test/fares.js';
import { hashOf, SharedVectorsBuilder, storedVectors } from './storedVectors.js';
import { readStudy } from './vectors.js';

const shipped = new URL('../../words/sentences.bin', import.meta.url);
const GERMAN = 'die Fahrt ist mir viel zu teuer';
const TWO_LINES = 'the crew is kind\nthe boat is never late';
const openTexts = [
  'they were there for us',
  GERMAN,
  TWO_LINES,
  'a dear fare',
  'a dear fare',
  'somebody always helps',
  'it costs too much for a family',
  'I like to look at the sea',
  'the harbour is windy',
  'we wait for hours',
];

let server: TestServer;
let client: Client;
let story: Awaited<ReturnType<typeof importFares>>;
beforeAll(async () => {
  process.env['SENTENCE_ENCODER'] = shipped.pathname;
  server = await startServer();
  client = await server.enter('Rowan');
  story = await importFares(client, 'id,Why?', openTexts, (text, i) => `${i},"${text}"`);
});
afterAll(() => server.stop());

const newestJob = async () =>
  (
    await server.sql<Job>(
      `select id, state, progress from job where study_id = :id and kind = 'encode' order by id desc limit 1`,
      { id: story.study.id },
    )
  )[0]!;
const vectors = () =>
  server.sql<{ textHash: Buffer; vector: Buffer | null; encoder: string }>(
    `select text_hash as "textHash", vector, encoder from sentence_vector where study_id = :id`,
    { id: story.study.id },
  );
const vectorOf = async (text: string) =>
  (await vectors()).find(({ textHash }) => textHash.equals(hashOf(text)));

/** Reads the study as its job does. */
async function read({ stopAfter = Infinity } = {}) {
  const stop = new AbortController();
  const asked: string[] = [];
  const reports: { done: number; of: number }[] = [];
  const reading = readStudy(story.study.id, {
    em: server.orm.em.fork(),
    threads: {
      ...server.threads,
      run: async (name, input, options) => {
        asked.push(...(input as { texts: string[] }).texts);
        const result = await server.threads.run(name, input, options);
        if (asked.length >= stopAfter) stop.abort();
        return result;
      },
    },
    signal: stop.signal,
    piece: 4,
    report: (progress) => reports.push(progress),
  });
  const ended = await reading.then(
    () => 'done',
    () => 'stopped',
  );
  return { asked, reports, ended };
}

test('an import has each different text read once, and its lines; not what is in another language', async () => {
  const { id } = await newestJob();
  expect((await client.jobEnd(story.study.id, id)).state).toBe('done');
  const { progress } = await newestJob();
  const answers = new Set([...settledTexts, ...openTexts]).size;
  expect(progress).toEqual({ done: answers, of: answers });
  const kept = await vectors();
  // the answer of two lines, and what the codebook says of the code that was made meanwhile
  expect(kept.length).toBeGreaterThanOrEqual(answers + 2);
  expect(new Set(kept.map(({ textHash }) => textHash.toString('hex'))).size).toBe(kept.length);
  expect(await vectorOf('the boat is never late')).toMatchObject({ vector: expect.any(Buffer) });
  expect(await vectorOf(GERMAN)).toMatchObject({ vector: null });
  const encoder = new TransformerEncoder(readEncoder(readFileSync(shipped)));
  const [vector] = encoder.encode(['they were there for us']);
  expect((await vectorOf('they were there for us'))!.vector).toEqual(
    Buffer.from(packVector(vector!)),
  );
  const shared = new SharedVectorsBuilder(kept.length);
  shared.add(kept.flatMap((one) => (one.vector ? [{ ...one, vector: one.vector }] : [])));
  const found = storedVectors(shared.vectors()!);
  expect(found.of('  they were there\nfor us ')).toEqual(found.of('they were there for us'));
  expect(found.of(GERMAN)).toBeNull();
});

test('vectors are the same to the last bit on one thread and on two', async () => {
  const texts = [...settledTexts, ...openTexts];
  const encode = (part: string[]) => server.threads.run('encode', { texts: part, others: texts });
  const whole = await encode(texts);
  const halves = await Promise.all([encode(texts.slice(0, 9)), encode(texts.slice(9))]);
  expect(halves.flat()).toEqual(whole);
});

test('what a stopped reading has kept is not read again; what another encoder said is dropped', async () => {
  const bytes = async () =>
    new Map((await vectors()).map((one) => [one.textHash.toString('hex'), one.vector]));
  await read();
  const before = await bytes();
  await server.sql(`update sentence_vector set encoder = 'another@1' where study_id = :id`, {
    id: story.study.id,
  });
  expect((await read({ stopAfter: 1 })).ended).toBe('stopped');
  const kept = await vectors();
  expect(kept.length).toBeLessThan(before.size);
  expect(kept.some(({ encoder }) => encoder === 'another@1')).toBe(false);
  const again = await read();
  expect(again.ended).toBe('done');
  expect(again.asked).toHaveLength(before.size - kept.length);
  expect((await read()).asked).toEqual([]);
  expect(await bytes()).toEqual(before);
});

test('a run knows its encoder, and an excluded word is read as if it were not there', async () => {
  const { path, study, fares } = story;
  const train = async () => {
    const { body: job } = await client.send<{ id: number }>('POST', `${path}/training`, {
      body: { scope: '', learnFromBulk: false },
    });
    expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  };
  await train();
  expect(
    await server.sql('select encoder from training_run where study_id = :id order by id', {
      id: study.id,
    }),
  ).toEqual([{ encoder: expect.stringMatching(/^english-sentences@/u) }]);
  expect(await vectorOf('a dear')).toBeUndefined();
  await client.send('POST', `${study.base}/excluded-words`, {
    body: { id: crypto.randomUUID(), word: 'fare', codeId: fares },
  });
  await train();
  expect(await vectorOf('a dear')).toMatchObject({ vector: expect.any(Buffer) });
});

test('a code lists the open answers nearest in meaning to what the codebook says of it', async () => {
  const { study, path, fares } = story;
  await client.send('POST', `${study.base}/codebook/list`, {
    body: {
      codes: [
        {
          theme: 'People',
          name: 'Crew',
          definition: 'The staff on board are friendly and helpful.',
          include: '',
          exclude: '',
        },
      ],
    },
  });
  const { body: codebook } = await client.get<{ codes: { id: string; name: string }[] }>(
    `${study.base}/codebook`,
  );
  const crew = codebook.codes.find(({ name }) => name === 'Crew')!;
  const { body } = await client.get<NearestAnswers>(
    `${study.base}/codes/${crew.id}/nearest?limit=2`,
  );
  expect(body.isKnown).toBe(true);
  const texts = body.answers.map(({ text }) => text);
  expect(texts).toContain(TWO_LINES);
  // settled answers have been read
  for (const text of texts) expect(settledTexts).not.toContain(text);

  // the code that has a model needs no first examples, and what is drawn is no random sample
  const { body: telling } = await client.get<TellingAnswers>(`${path}/telling?size=5`);
  expect(telling.answers.map(({ nearestTo }) => nearestTo)).toContain(crew.id);
  expect(telling.answers.map(({ nearestTo }) => nearestTo)).not.toContain(fares);
  const { body: drawn } = await client.send('POST', `${path}/samples`, {
    body: { kind: 'first_examples', size: 2, variableId: null },
  });
  expect(drawn).toEqual({ drawn: 2 });
  const sampled = (await study.ledger('show=sample')).answers.map(({ text }) => text);
  expect(sampled.toSorted()).toEqual(texts.toSorted());
  const { body: detail } = await client.get<StudyDetail>(study.base);
  expect(detail.questions[0]!.sample).toMatchObject({ size: 2, random: 0 });
});

test('likeness is of meaning, too: in the ledger and in piles', async () => {
  const { study, path, fares } = story;
  const { ids } = (await client.get<Ledger>(`${path}/ledger?order=resembling&code=${fares}`)).body;
  const { answers } = await study.ledger('same=apart');
  const textOf = new Map(answers.map(({ id, text }) => [id, text]));
  const placeOf = (text: string) => ids.findIndex((id) => textOf.get(id) === text);
  // no word of these is in the definition or the examples
  expect(placeOf('it costs too much for a family')).toBeLessThan(placeOf('we wait for hours'));

  const { body: codebook } = await client.get<Codebook>(`${study.base}/codebook`);
  const codes = codebook.codes.map(({ id }) => id);
  const order = async (like: string[] | null) =>
    (
      await client.send<{ mentions: string[] }>('POST', `${study.base}/mentions/order`, {
        body: { codes, like },
      })
    ).body.mentions;
  const alike = await order(null);
  expect(alike).toHaveLength(settledTexts.filter((text) => text.includes('fare')).length);
  const [first] = alike;
  expect((await order([first!]))[0]).toBe(first);
  expect((await order([first!])).toSorted()).toEqual(alike.toSorted());
});

test('a suggestion is explained by its parts, and by the hand-coded lines nearest in meaning', async () => {
  const { path, fares } = story;
  const { body } = await client.get<SuggestionPage>(`${path}/review/${fares}/suggestions`);
  const dear = body.suggestions.find(({ text }) => text === 'a dear fare')!;
  expect(dear).toMatchObject({ fromWords: expect.any(Number), fromMeaning: expect.any(Number) });
  const nearest = (answer: number) =>
    client.get<NearestCoded>(`${path}/review/${fares}/suggestions/${answer}/nearest`);
  const { lines } = (await nearest(dear.responseId)).body;
  // two with the code and two without it, all of them settled
  expect(lines.map(({ hasCode }) => hasCode)).toEqual([true, true, false, false]);
  for (const { text, hasCode } of lines) {
    expect(settledTexts).toContain(text);
    expect(text.includes('fare')).toBe(hasCode);
  }
  const settled = lines[0]!.responseId;
  expect((await nearest(settled)).status).toBe(404);
});

test('vectors go with their texts', async () => {
  const { study } = story;
  const { body } = await client.get<{ imports: { id: number }[] }>(`${study.base}/imports`);
  const { body: job } = await client.send<{ id: number }>(
    'POST',
    `${study.base}/imports/${body.imports[0]!.id}/undo`,
    { body: {} },
  );
  expect((await client.jobEnd(study.id, job.id)).state).toBe('done');
  await client.jobEnd(study.id, (await newestJob()).id);
  expect(await vectorOf('they were there for us')).toBeUndefined();
});
