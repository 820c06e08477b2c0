// One thread's share of a training run: all texts are read, some of the codes fitted, as the product's threads do, by
// the built code that they run.
import { readFileSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import { readWordTable, trainQuestion } from '@yellow-thread/core/learning';

/** @type {import('./training.ts').PartOfTraining} */
const { answers, settled, codes, only } = workerData;
const table = readWordTable(
  readFileSync(new URL('../../server/words/english.bin', import.meta.url)),
);
trainQuestion(
  {
    answers: answers.map(({ text, codes }, i) => ({
      ...{ text, codes: new Set(codes), settled: i < settled, random: i < settled },
    })),
    ...{ codes, only: new Set(only), seed: 1 },
  },
  { table, sentences: null },
);
