import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { readWordTable, trainQuestion, type TrainingVectors } from '@yellow-thread/core/learning';
import { simpleRandomSample } from '@yellow-thread/core/sampling';
import { CROSS_FITTED, estimateShare } from '@yellow-thread/core/statistics';
import {
  demoCodes,
  demoQuestions,
  encodedOnce,
  readSentenceEncoder,
  rounded,
  type CodedText,
} from './material.js';
import { mails, packages, type OpenSet } from './openSets.js';

/** Texts taken of an open set, about as many as a survey has answers. */
const MOST_ANSWERS = 900;

interface Population {
  name: string;
  answers: readonly CodedText[];
  codes: typeof demoCodes;
}

/**
 * How often the interval of an estimated share holds the true one, with models trained on the sample as the product
 * trains them: on the demo's questions and two open sets. One row a population; `--draws` says how many samples,
 * `--encoder none` leaves sentence vectors out.
 */
export function coverage(args: string[]) {
  const { values } = parseArgs({
    args,
    options: {
      draws: { type: 'string', default: '60' },
      size: { type: 'string', default: '150' },
      encoder: { type: 'string', default: 'default' },
      json: { type: 'boolean' },
    },
  });
  const table = readWordTable(
    readFileSync(new URL('../../server/words/english.bin', import.meta.url)),
  );
  const sentences = values.encoder === 'none' ? null : encodedOnce(readSentenceEncoder());
  return populations().map((population) =>
    drawAndEstimate(
      population,
      { table, sentences },
      { size: Number(values.size), draws: Number(values.draws) },
    ),
  );
}

const populations = (): Population[] => [
  ...demoQuestions().map((answers, q) => ({
    name: `demo, question ${q + 1}`,
    answers,
    codes: demoCodes,
  })),
  ...[mails(), packages()].map(ofOpenSet),
];

const ofOpenSet = ({ name, answers, codes }: OpenSet): Population => {
  const step = Math.max(1, answers.length / MOST_ANSWERS);
  return {
    name,
    answers: Array.from(
      { length: Math.min(answers.length, MOST_ANSWERS) },
      (_, i) => answers[Math.floor(i * step)]!,
    ),
    codes: codes.map((id) => ({
      id,
      name: id.replace(/^.*::/u, ''),
      definition: '',
      include: '',
    })),
  };
};

function drawAndEstimate(
  { name, answers, codes }: Population,
  vectors: TrainingVectors,
  { size, draws }: { size: number; draws: number },
) {
  const shares = new Map(
    codes.map(({ id }) => [
      id,
      answers.filter((answer) => answer.codes.has(id)).length / answers.length,
    ]),
  );
  let [intervals, held, width, plainWidth, error] = [0, 0, 0, 0, 0];
  for (let seed = 1; seed <= draws; seed++) {
    const sampled = simpleRandomSample(answers.length, size, seed).sort((x, y) => x - y);
    const drawn = new Set(sampled);
    const { crossFitted } = trainQuestion(
      {
        seed,
        codes,
        answers: answers.map(({ text, codes: its }, i) => ({
          text,
          settled: drawn.has(i),
          random: drawn.has(i),
          codes: drawn.has(i) ? its : new Set<string>(),
        })),
      },
      vectors,
    );
    for (const [id, predicted] of crossFitted) {
      const { estimate, sampleInterval } = estimateShare({
        answers: answers.length,
        sampled,
        predicted,
        parameters: CROSS_FITTED,
        truth: sampled.map((i) => Number(answers[i]!.codes.has(id))),
      })!;
      if (!estimate) continue;
      const [low, high] = estimate.interval;
      intervals += 1;
      if (low <= shares.get(id)! && shares.get(id)! <= high) held += 1;
      width += high - low;
      plainWidth += sampleInterval[1] - sampleInterval[0];
      error += estimate.value - shares.get(id)!;
    }
  }
  return {
    population: name,
    answers: answers.length,
    sampled: size,
    intervals,
    'hold the true share': rounded(held / intervals, 3),
    'mean error': rounded(error / intervals, 4),
    'width, to the sample alone': rounded(width / plainWidth),
  };
}
