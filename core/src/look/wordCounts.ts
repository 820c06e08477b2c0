import { foldForSearch, splitWords } from '../text/index.js';

export interface WordCount {
  /** As it is written most often. */
  word: string;
  /** How many answers use it at least once, with or without its accents. */
  answers: number;
}

/** English function words that say nothing of a topic; the researcher sets others aside. */
const functionWords = new Set(
  `a about after all also am an and any are as at be because been before being but by can could
  did do does doing done don't each even ever for from get gets getting go going got had has have
  having he her here him his how i i'd i'll i'm i've if in into is isn't it it's its just like made
  make makes me more most much my no not of off on once one only or other our out over own really
  said same she should so some still such than that that's the their them then there there's these
  they they're this those to too up us use used very was wasn't we we're we've were what when where
  which while who why will with would you you're your`.split(/\s+/u),
);

/** Whether a word says nothing of a topic by itself. */
export const isFunctionWord = (form: string): boolean =>
  functionWords.has(form) || !/\p{L}{2}|\p{Lo}/u.test(form);

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
