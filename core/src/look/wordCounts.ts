import { splitWords } from '../text/index.js';

export interface WordCount {
  word: string;
  /** How many answers use it at least once. */
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

/**
 * How many answers use each word, most used first. Function words, the words of the question itself,
 * single letters and numbers are left out, and so are the words set aside.
 *
 * @param most how many words to give at the most
 */
export function countWords(
  answers: readonly string[],
  question: string,
  setAside: readonly string[],
  most: number,
): WordCount[] {
  const ignored = new Set([...splitWords(question).map((word) => word.form), ...setAside]);
  const counts = new Map<string, number>();
  for (const answer of answers)
    for (const form of new Set(splitWords(answer).map((word) => word.form)))
      if (!functionWords.has(form) && !ignored.has(form) && /\p{L}{2}|\p{Lo}/u.test(form))
        counts.set(form, (counts.get(form) ?? 0) + 1);
  return [...counts]
    .map(([word, count]) => ({ word, answers: count }))
    .sort((x, y) => y.answers - x.answers || (x.word < y.word ? -1 : 1))
    .slice(0, most);
}
