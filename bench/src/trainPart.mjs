// One thread's share of a training run: all texts are read, some of the codes fitted, as the product's threads do, by
// the built code that they run.
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import { readWordTable, trainQuestion } from '@yellow-thread/core/learning';
import { unpackVector } from '@yellow-thread/core/sentences';

/** @type {import('./training.ts').PartOfTraining} */
const { answers, settled, codes, only, packed } = workerData;
const table = readWordTable(
  readFileSync(new URL('../../server/words/english.bin', import.meta.url)),
);
/** @type {import('@yellow-thread/core/sentences').SentenceVectors | null} */
const sentences = packed && {
  size: unpackVector(packed[0]).length,
  // found and unpacked at every asking, as the product does
  of: (text) => unpackVector(packed[hashOf(text) % packed.length]),
};
trainQuestion(
  {
    answers: answers.map(({ text, codes }, i) => ({
      ...{ text, codes: new Set(codes), settled: i < settled, random: i < settled },
    })),
    ...{ codes, only: new Set(only), seed: 1 },
  },
  { table, sentences },
);

/** @param {string} text */
function hashOf(text) {
  return createHash('sha256').update(text.replace(/\s+/gu, ' ').trim()).digest().readUInt32LE(0);
}
