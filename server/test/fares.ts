import type { Client } from './app.js';
import { importStudy } from './study.js';

/** Settled answers that a model of fares can be learnt from: six with the code, six without. */
export const settledTexts = [
  'the fare is high',
  'high fare',
  'fare again',
  'a fair fare please',
  'that fare',
  'fare',
  'lovely crew',
  'the crew',
  'a kind crew',
  'the view',
  'more boats',
  'the queue',
];

/** A study of these answers, coded and settled, and of others that are open; `lineOf` writes each as a line of CSV. */
export async function importFares(
  client: Client,
  head: string,
  openTexts: readonly string[],
  lineOf: (text: string, row: number) => string,
) {
  const lines = [...settledTexts, ...openTexts].map(lineOf);
  const study = await importStudy(client, `${head}\n${lines.join('\n')}`);
  const { answers } = await study.ledger('same=apart');
  let fares = '';
  for (const { id, text } of answers.filter((one) => settledTexts.includes(one.text))) {
    if (text.includes('fare'))
      fares = (await study.code(id, fares ? { codeId: fares } : { newCode: 'Fares' })).codeId;
    await study.settle(id);
  }
  return { study, fares, path: `${study.base}/questions/${study.question}` };
}
