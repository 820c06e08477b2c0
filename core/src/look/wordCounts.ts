import { isFunctionWord } from '../text/index.js';
import type { TermTexts } from './readTerms.js';

/** A word in all of its forms. */
export interface WordCount {
  /** The form that most answers use. */
  word: string;
  /** How many answers use any form of it at least once, with or without its accents. */
  answers: number;
  /** How many use each form, most used first; one alone where there is but one. */
  forms: { form: string; answers: number }[];
}

/**
 * How many answers use each word, most used first: as many as are found by looking for any form of it. Function words,
 * single letters and numbers are left out, and what else is to be.
 *
 * @param ignored words, by number, that are left out
 * @param most how many words to give at the most
 * @returns with their numbers
 */
export function countWords(
  terms: TermTexts,
  ignored: ReadonlySet<number>,
  most: number,
): (WordCount & { id: number })[] {
  const { spellings, stems, wordOf } = terms;
  const ofWords = answersUsing(terms.start, terms.words, stems.length);
  const ofForms = answersUsing(terms.start, terms.forms, spellings.length);
  const formsOf: number[][] = stems.map(() => []);
  // numbered may be words that these answers do not use
  for (const [form, word] of wordOf.entries()) if (ofForms[form]! > 0) formsOf[word]!.push(form);
  return formsOf
    .map((forms, word) => ({ word, forms: sortedBy(forms, ofForms, spellings) }))
    .filter(
      ({ word, forms }) =>
        forms.length > 0 && !ignored.has(word) && !isFunctionWord(spellings[forms[0]!]!),
    )
    .sort(
      (x, y) =>
        ofWords[y.word]! - ofWords[x.word]! ||
        (spellings[x.forms[0]!]! < spellings[y.forms[0]!]! ? -1 : 1),
    )
    .slice(0, most)
    .map(({ word, forms }) => ({
      id: word,
      word: spellings[forms[0]!]!,
      answers: ofWords[word]!,
      forms: forms.map((form) => ({ form: spellings[form]!, answers: ofForms[form]! })),
    }));
}

const sortedBy = (forms: number[], answers: Int32Array, spellings: readonly string[]): number[] =>
  forms.sort((x, y) => answers[y]! - answers[x]! || (spellings[x]! < spellings[y]! ? -1 : 1));

/**
 * How many answers use each of some words or forms, by number.
 *
 * @param used what stands at each place, by number; −1 for nothing
 * @param included by answer, 1 for those that are counted; left out for all
 */
export function answersUsing(
  start: Int32Array,
  used: Int32Array,
  count: number,
  included?: Uint8Array,
): Int32Array {
  const answers = new Int32Array(count);
  const lastIn = new Int32Array(count).fill(-1);
  for (let t = 0; t < start.length - 1; t++) {
    if (included && !included[t]) continue;
    for (let w = start[t]!; w < start[t + 1]!; w++) {
      const one = used[w]!;
      if (one < 0 || lastIn[one] === t) continue;
      lastIn[one] = t;
      answers[one]! += 1;
    }
  }
  return answers;
}
