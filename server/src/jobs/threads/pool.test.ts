import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createThreads, type Threads } from './pool.js';

let threads: Threads;
beforeAll(() => {
  threads = createThreads();
});
afterAll(() => threads.close());

const training = (answers: number) => ({
  vectors: null,
  input: trainingInput(answers),
});
const trainingInput = (answers: number) => ({
  seed: 1,
  codes: Array.from({ length: 20 }, (_, c) => ({
    id: String(c),
    name: '',
    definition: '',
    include: '',
  })),
  answers: Array.from({ length: answers }, (_, i) => ({
    text: `word${i % 50} and word${(7 * i) % 90} on the ${i % 13}th crossing`,
    settled: true,
    codes: new Set([String(i % 20)]),
  })),
});

test('work on a thread tells how far it is, and brings back its result', async () => {
  const steps: number[] = [];
  const { codes } = await threads.run('trainCodes', training(200), {
    onProgress: ({ done, of }) => steps.push(done / of),
  });
  expect(codes).toHaveLength(20);
  expect(steps.length).toBeGreaterThan(1);
  expect(steps).toEqual([...steps].sort((x, y) => x - y));
});

test('models are the same to the last bit on one thread and divided between two', async () => {
  const whole = await threads.run('trainCodes', training(200));
  const halves = await Promise.all(
    [0, 1].map((half) =>
      threads.run('trainCodes', {
        vectors: null,
        input: {
          ...trainingInput(200),
          only: new Set(whole.codes.flatMap(({ codeId }, c) => (c % 2 === half ? [codeId] : []))),
        },
      }),
    ),
  );
  const divided = new Map(halves.flatMap(({ codes }) => codes).map((one) => [one.codeId, one]));
  expect(whole.codes.map(({ codeId }) => divided.get(codeId))).toEqual(whole.codes);
});

test('work that is cancelled ends at once, and the threads go on with other work', async () => {
  const stop = new AbortController();
  const run = threads.run('trainCodes', training(4000), {
    signal: stop.signal,
    onProgress: () => stop.abort(),
  });
  await expect(run).rejects.toThrow(/abort/i);
  const terms = await threads.run('readTerms', { texts: ['late boat'] });
  const leftOut = { question: '', setAside: [] };
  const look = await threads.run('look', { terms, leftOut, included: null });
  expect(look.words).toHaveLength(2);
});

test('a problem met on a thread arrives as the problem that it is', async () => {
  const input = { fileName: 'a.csv', size: 0, choices: {} };
  await expect(threads.run('readSheet', input)).rejects.toMatchObject({
    status: 422,
    code: 'unreadable_sheet',
    message: '“a.csv” is empty.',
  });
});

test('what goes wrong while the server gives or takes a piece is what the run ends with', async () => {
  const input = { fileName: 'a.csv', size: 10, choices: {} };
  const part = () => Promise.reject(new Error('the connection is gone'));
  await expect(threads.run('readSheet', input, { part })).rejects.toThrow('the connection is gone');
});
