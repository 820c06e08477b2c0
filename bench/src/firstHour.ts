import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import {
  averagePrecision,
  LEAST_PROBABILITY,
  readWordTable,
  trainQuestion,
  type TrainingVectors,
} from '@yellow-thread/core/learning';
import { mostTelling } from '@yellow-thread/core/sampling';
import { randomSource, shuffle } from '@yellow-thread/core/statistics';
import {
  demoCodes,
  demoQuestions,
  encodedOnce,
  readSentenceEncoder,
  type CodedText,
} from './material.js';

const WANTED = 0.6;
const BATCH = 10;
const FIRST = 30;
/** One in this many of a telling batch is an answer that no code fits. */
const UNLIKE_EVERY = 5;

/**
 * How many answers somebody codes by hand until the models' mean average precision on the others reaches .6, on the
 * demo's true codes with its codebook: answers drawn at random, or after the first thirty those that teach most, each
 * with the sentence encoder and without. A code without a model counts as if its answers were in no order.
 */
export function firstHour(args: string[]) {
  const { values } = parseArgs({
    args,
    options: { draws: { type: 'string', default: '3' }, json: { type: 'boolean', default: false } },
  });
  const table = readWordTable(
    readFileSync(new URL('../../server/words/english.bin', import.meta.url)),
  );
  const sentences = encodedOnce(readSentenceEncoder());
  const draws = Array.from({ length: Number(values.draws) }, (_, draw) => draw + 1);
  return demoQuestions().flatMap((answers, q) =>
    (['random', 'most telling'] as const).flatMap((way) =>
      [null, sentences].map((encoder) => {
        const coded = draws.map((draw) =>
          codeUntil(answers, way, { table, sentences: encoder }, draw),
        );
        return {
          question: `demo ${q + 1}`,
          sample: way,
          encoder: encoder ? 'default' : 'none',
          'answers coded': coded.some((one) => one === null)
            ? 'not reached'
            : Math.round(coded.reduce<number>((sum, one) => sum + one!, 0) / draws.length),
          of: answers.length,
          draws: draws.length,
        };
      }),
    ),
  );
}

/** @returns how many answers were coded; null where half of them were not enough */
function codeUntil(
  answers: readonly CodedText[],
  way: 'random' | 'most telling',
  vectors: TrainingVectors,
  seed: number,
): number | null {
  const order = shuffle([...answers.keys()], randomSource(seed));
  const coded = new Set(order.slice(0, FIRST));
  while (coded.size <= answers.length / 2) {
    const { reached, distances } = learn(answers, coded, vectors);
    if (reached >= WANTED) return coded.size;
    const open = order.filter((i) => !coded.has(i));
    const next = way === 'random' ? open.slice(0, BATCH) : tellingBatch(answers, open, distances);
    for (const i of next) coded.add(i);
  }
  return null;
}

/** The models of what is coded: how good they are, and how near each open answer is to the threshold of some code. */
function learn(
  answers: readonly CodedText[],
  coded: ReadonlySet<number>,
  vectors: TrainingVectors,
) {
  const { codes } = trainQuestion(
    {
      answers: answers.map(({ text, codes }, i) => ({
        text,
        settled: coded.has(i),
        random: false,
        codes: coded.has(i) ? codes : new Set<string>(),
      })),
      codes: demoCodes.map((code) => ({ ...code })),
      seed: 1,
      leastProbability: 0,
    },
    vectors,
  );
  const open = [...answers.keys()].filter((i) => !coded.has(i));
  const distances = new Map<number, number>();
  const precisions = codes.flatMap((code) => {
    const labels = Uint8Array.from(open, (i) => Number(answers[i]!.codes.has(code.codeId)));
    const positives = labels.reduce((sum, one) => sum + one, 0);
    if (positives === 0) return [];
    if (code.state === 'too_few') return [positives / open.length];
    const said = new Map(
      Array.from(code.suggestions.answers, (i, s) => [i, code.suggestions.probabilities[s]!]),
    );
    for (const [i, p] of said)
      if (p >= LEAST_PROBABILITY)
        distances.set(i, Math.min(distances.get(i) ?? 1, Math.abs(p - code.threshold)));
    return [
      averagePrecision(
        Float64Array.from(open, (i) => said.get(i) ?? 0),
        labels,
      ),
    ];
  });
  const reached = precisions.reduce((sum, one) => sum + one, 0) / precisions.length;
  return { reached, distances };
}

/** As the product chooses a batch: near the threshold of some code and unlike each other, some that no code fits. */
function tellingBatch(
  answers: readonly CodedText[],
  open: readonly number[],
  distances: ReadonlyMap<number, number>,
): number[] {
  const near = open.filter((i) => distances.has(i));
  const unlike = open.filter((i) => !distances.has(i)).slice(0, Math.floor(BATCH / UNLIKE_EVERY));
  const chosen = mostTelling(
    near.map((i) => answers[i]!.text),
    near.map((i) => distances.get(i)!),
    BATCH - unlike.length,
  );
  return [...[...chosen].map((place) => near[place]!), ...unlike];
}
