import { splitWords } from '../text/index.js';

const bins = [1, 6, 11, 16, 21, 31, 51];

/** How many answers have how many words: each bin from its number up to the next one's, the last open. */
export function countLengths(answers: readonly string[]): { from: number; answers: number }[] {
  const lengths = bins.map((from) => ({ from, answers: 0 }));
  for (const text of answers) {
    const words = splitWords(text).length;
    lengths.findLast((bin) => bin.from <= Math.max(1, words))!.answers += 1;
  }
  return lengths;
}
