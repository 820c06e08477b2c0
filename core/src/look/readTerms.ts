import { stemmer } from 'stemmer';
import { foldAccents, isAscii, splitWords } from '../text/index.js';

/** Answers as words, each a number for all of its forms: what a search for any form of a word finds. */
export interface TermTexts {
  /** The words of answer t stand at places start[t] … start[t + 1] − 1. */
  start: Int32Array;
  /** By word of a text, which word it is … */
  words: Int32Array;
  /** … and in which form. */
  forms: Int32Array;
  /** By number of a word, its stem (Porter 1980), without accents. */
  stems: readonly string[];
  /** By number of a form, how it is written, and the number of its word. */
  spellings: readonly string[];
  wordOf: readonly number[];
}

/**
 * Reads answers as words whose forms are one (“queue, queues, queueing”), with accents or without. Splits and folds as
 * `hitFinder` does for the forms of a word, so that what is counted is found.
 */
export function readTerms(answers: readonly string[]): TermTexts {
  const start = new Int32Array(answers.length + 1);
  const words: number[] = [];
  const forms: number[] = [];
  const stemIds = new Map<string, number>();
  const formIds = new Map<string, number>();
  const spellings: string[] = [];
  const wordOf: number[] = [];
  for (const [t, answer] of answers.entries()) {
    const folded = isAscii(answer) ? null : foldAccents(answer);
    for (const { form, ...span } of splitWords(folded?.text ?? answer)) {
      let id = formIds.get(form);
      if (id === undefined) {
        id = formIds.size;
        formIds.set(form, id);
        spellings.push(folded ? spellingAt(answer, folded.original(span)) : form);
        const stem = stemmer(form);
        if (!stemIds.has(stem)) stemIds.set(stem, stemIds.size);
        wordOf.push(stemIds.get(stem)!);
      }
      forms.push(id);
      words.push(wordOf[id]!);
    }
    start[t + 1] = words.length;
  }
  return {
    start,
    words: Int32Array.from(words),
    forms: Int32Array.from(forms),
    stems: [...stemIds.keys()],
    spellings,
    wordOf,
  };
}

/** Which of these words stand in some texts, in any form, by number. */
export function termsIn({ stems }: TermTexts, texts: readonly string[]): Set<number> {
  const wanted = new Set(
    texts.flatMap((text) => splitWords(foldAccents(text).text).map(({ form }) => stemmer(form))),
  );
  return new Set(stems.flatMap((stem, word) => (wanted.has(stem) ? [word] : [])));
}

const spellingAt = (text: string, { start, end }: { start: number; end: number }): string =>
  text.slice(start, end).normalize('NFC').toLowerCase().replaceAll('’', "'");
