import { foldForSearch, isFunctionWord, splitWords } from '../text/index.js';

export interface WordCount {
  /** As it is written most often. */
  word: string;
  /** How many answers use it at least once, with or without its accents. */
  answers: number;
}

/**
 * How many answers use each word, most used first: as many as are found by looking for it as a whole word. Function
 * words, the words of the question itself, single letters and numbers are left out, and so are the words set aside.
 *
 * @param most how many words to give at the most
 */
export function countWords(
  answers: readonly string[],
  question: string,
  setAside: readonly string[],
  most: number,
): WordCount[] {
  const ignored = new Set(
    [...splitWords(question).map(({ form }) => form), ...setAside].map(foldForSearch),
  );
  const counts = new Map<string, { answers: number; spellings: Map<string, number> }>();
  for (const answer of answers) {
    const spellingOf = new Map(splitWords(answer).map(({ form }) => [foldForSearch(form), form]));
    for (const [word, spelling] of spellingOf) {
      const count = counts.get(word) ?? { answers: 0, spellings: new Map<string, number>() };
      counts.set(word, count);
      count.answers += 1;
      count.spellings.set(spelling, (count.spellings.get(spelling) ?? 0) + 1);
    }
  }
  return [...counts]
    .filter(([word]) => !ignored.has(word) && !isFunctionWord(word))
    .sort(([x, xs], [y, ys]) => ys.answers - xs.answers || (x < y ? -1 : 1))
    .slice(0, most)
    .map(([, { answers, spellings }]) => ({
      word: [...spellings].reduce((best, one) => (one[1] > best[1] ? one : best))[0],
      answers,
    }));
}
