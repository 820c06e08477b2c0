import { execFileSync } from 'node:child_process';
import { Worker } from 'node:worker_threads';
import { randomSource } from '@yellow-thread/core/statistics';
import { packVector } from '@yellow-thread/core/sentences';
import { splitWords } from '@yellow-thread/core/text';
import { askPython, demoCodes, demoQuestions, readSentenceEncoder, rounded } from './material.js';

const ANSWERS = 100_000;
const WORDS = 13;
const THREADS = 2;

export interface Coded {
  text: string;
  codes: string[];
}

/** What a thread of the benchmark is given: all texts, and the codes that it fits. */
export interface PartOfTraining {
  answers: Coded[];
  settled: number;
  codes: { id: string; name: string; definition: string; include: string }[];
  only: string[];
  /** Sentence vectors as they are kept, of other texts; null for a training without. */
  packed: Uint8Array[] | null;
}

/**
 * A whole training run of a large question by the product's own code on two threads (folds, learning curves,
 * calibration, and probabilities with reasons for 100,000 answers), beside scikit-learn's fit and prediction alone
 * (word and character TF-IDF, one-vs-rest liblinear) on two processes, in the same run: the means of two. The same with
 * sentence vectors that are read already, once. `--large` trains 10,000 settled × 100 codes too, without the comparison.
 */
export async function training(args: string[]) {
  // the threads run what is built, as the product's do
  execFileSync('npx', ['tsc', '-b', 'core'], { stdio: 'ignore' });
  const [small, large] = [
    { settled: 2_000, codes: 50 },
    { settled: 10_000, codes: 100 },
  ];
  // twice each, one way round and then the other: a machine that gets slower meanwhile does so for both
  const once = await trainOnThreads(small.settled, small.codes);
  const other = scikitLearn(small.settled, small.codes);
  const otherAgain = scikitLearn(small.settled, small.codes);
  const again = await trainOnThreads(small.settled, small.codes);
  const read = await trainOnThreads(small.settled, small.codes, packedVectors());
  const seconds = rounded((once.seconds + again.seconds) / 2, 1);
  const otherSeconds = rounded((other.seconds + otherAgain.seconds) / 2, 1);
  const rows = [
    {
      what: '2,000 settled × 50 codes, 100,000 answers',
      seconds,
      'peak MB': Math.max(once.peak, again.peak),
      'scikit-learn, no folds': otherSeconds,
      ratio: rounded(seconds / otherSeconds),
      'with sentence vectors': read.seconds,
      'times as long': rounded(read.seconds / seconds),
    },
  ];
  if (!args.includes('--large')) return rows;
  const more = await trainOnThreads(large.settled, large.codes);
  return [
    ...rows,
    {
      what: '10,000 settled × 100 codes, 100,000 answers',
      seconds: more.seconds,
      'peak MB': more.peak,
      'times as long as the first': rounded(more.seconds / seconds),
    },
  ];
}

/** Answers of 13 words, made of the demo's, with its codes and some that go by a common word. */
function makeAnswers(codes: number): { answers: Coded[]; ids: string[] } {
  const next = randomSource(3);
  const draw = (below: number) => Math.floor((next() / 2 ** 32) * below);
  const pool = demoQuestions().flat();
  const answers = Array.from({ length: ANSWERS }, () => {
    const parts: (typeof pool)[number][] = [];
    let words = 0;
    while (words < WORDS - 3) {
      const part = pool[draw(pool.length)]!;
      parts.push(part);
      words += part.text.split(/\s+/u).length;
    }
    return {
      text: parts.map(({ text }) => text).join(' '),
      codes: [...new Set(parts.flatMap((part) => [...part.codes]))],
    };
  });
  const counts = new Map<string, number>();
  for (const { text } of answers.slice(0, 5000))
    for (const form of new Set(splitWords(text).map((word) => word.form)))
      counts.set(form, (counts.get(form) ?? 0) + 1);
  const common = [...counts]
    .filter(([form]) => form.length > 3)
    .sort(([, x], [, y]) => y - x)
    .slice(0, Math.max(0, codes - demoCodes.length))
    .map(([form]) => form);
  for (const answer of answers) {
    const forms = new Set(splitWords(answer.text).map((word) => word.form));
    answer.codes.push(...common.filter((form) => forms.has(form)));
  }
  return { answers, ids: [...demoCodes.map(({ id }) => id), ...common].slice(0, codes) };
}

const named = (ids: readonly string[]) =>
  ids.map(
    (id) =>
      demoCodes.find((code) => code.id === id) ?? { id, name: '', definition: '', include: '' },
  );

/** Vectors of the demo's answers, as many as vectors need not be told apart by. */
function packedVectors(): Uint8Array[] {
  const texts = demoQuestions().flatMap((answers) => answers.map(({ text }) => text));
  return readSentenceEncoder()
    .encode([...new Set(texts)])
    .flatMap((vector) => (vector ? [packVector(vector)] : []));
}

async function trainOnThreads(settled: number, codes: number, packed: Uint8Array[] | null = null) {
  const { answers, ids } = makeAnswers(codes);
  const before = performance.now();
  let peak = process.memoryUsage.rss();
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage.rss())), 100);
  await Promise.all(
    Array.from({ length: THREADS }, (_, thread) => {
      const part: PartOfTraining = {
        answers,
        settled,
        codes: named(ids),
        only: ids.filter((_, i) => i % THREADS === thread),
        packed,
      };
      const worker = new Worker(new URL('./trainPart.mjs', import.meta.url), {
        workerData: part,
        execArgv: [],
      });
      return new Promise<void>((resolve, reject) => {
        worker.once('error', reject);
        worker.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`exit ${code}`))));
      });
    }),
  );
  clearInterval(watch);
  const seconds = rounded((performance.now() - before) / 1000, 1);
  return { seconds, peak: Math.round(peak / 2 ** 20) };
}

function scikitLearn(settled: number, codes: number): { seconds: number } {
  const { answers, ids } = makeAnswers(codes);
  return askPython('sklearn_train.py', {
    settled,
    texts: answers.map(({ text }) => text),
    labels: answers
      .slice(0, settled)
      .map((answer) => ids.map((id) => Number(answer.codes.includes(id)))),
  }) as { seconds: number };
}
