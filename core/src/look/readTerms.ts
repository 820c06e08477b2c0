import { stemmer } from 'stemmer';
import { eachAsciiWord, foldAccents, isAscii, splitLines, splitWords } from '../text/index.js';
import { FormIds } from './formIds.js';

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
  const start = shared({ length: answers.length + 1 });
  const words: number[] = [];
  const forms: number[] = [];
  const stemIds = new Map<string, number>();
  const formIds = new FormIds();
  const spellings: string[] = [];
  const wordOf: number[] = [];
  const addForm = (form: string, spelling: string): number => {
    spellings.push(spelling);
    const stem = stemmer(form);
    if (!stemIds.has(stem)) stemIds.set(stem, stemIds.size);
    wordOf.push(stemIds.get(stem)!);
    return formIds.add(form);
  };
  const tell = (form: number) => {
    forms.push(form);
    words.push(wordOf[form]!);
  };
  for (const [t, answer] of answers.entries()) {
    if (isAscii(answer)) {
      const lower = answer.toLowerCase();
      eachAsciiWord(lower, (from, to) => {
        let id = formIds.find(lower, from, to);
        if (id < 0) {
          const form = lower.slice(from, to);
          id = addForm(form, form);
        }
        tell(id);
      });
    } else {
      const folded = foldAccents(answer);
      for (const { form, ...span } of splitWords(folded.text)) {
        const known = formIds.find(form, 0, form.length);
        tell(known >= 0 ? known : addForm(form, spellingAt(answer, folded.original(span))));
      }
    }
    start[t + 1] = words.length;
  }
  return {
    start,
    words: shared(words),
    forms: shared(forms),
    stems: [...stemIds.keys()],
    spellings,
    wordOf,
  };
}

/** Lines of answers as words. */
export interface TermLines {
  terms: TermTexts;
  /** By line, which answer it is of; lines of an answer stand together. */
  answerOf: Int32Array;
  answers: number;
}

/** Reads the lines of answers as words. */
export function readTermLines(answers: readonly string[]): TermLines {
  const lines: string[] = [];
  const answerOf: number[] = [];
  for (const [a, answer] of answers.entries())
    for (const { start, end } of splitLines(answer)) {
      lines.push(answer.slice(start, end));
      answerOf.push(a);
    }
  return { terms: readTerms(lines), answerOf: shared(answerOf), answers: answers.length };
}

/** The words of some answers alone, as they were numbered among all. */
export function termsOf(terms: TermTexts, included: Uint8Array): TermTexts {
  const { start } = terms;
  const places: number[] = [];
  const starts = [0];
  for (let a = 0; a < included.length; a++) {
    if (!included[a]) continue;
    for (let w = start[a]!; w < start[a + 1]!; w++) places.push(w);
    starts.push(places.length);
  }
  return {
    ...terms,
    start: Int32Array.from(starts),
    words: Int32Array.from(places, (w) => terms.words[w]!),
    forms: Int32Array.from(places, (w) => terms.forms[w]!),
  };
}

/** The lines of some answers alone; these are numbered anew. */
export function linesOfSome({ terms, answerOf }: TermLines, included: Uint8Array): TermLines {
  const isIncluded = Uint8Array.from(answerOf, (a) => included[a]!);
  const renumbered = new Int32Array(included.length);
  let answers = 0;
  for (let a = 0; a < included.length; a++) if (included[a]) renumbered[a] = answers++;
  return {
    terms: termsOf(terms, isIncluded),
    answerOf: answerOf.filter((_, line) => isIncluded[line]).map((a) => renumbered[a]!),
    answers,
  };
}

/** Where the words of each answer begin among those of its lines. */
export function answerStarts({ terms, answerOf, answers }: TermLines): Int32Array {
  const starts = new Int32Array(answers + 1);
  for (let line = 0; line < answerOf.length; line++)
    starts[answerOf[line]! + 1] = terms.start[line + 1]!;
  // an answer without a line has no words
  for (let a = 1; a <= answers; a++) starts[a] = Math.max(starts[a]!, starts[a - 1]!);
  return starts;
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

/** In memory that threads share: it goes from one to the other as it is. */
const shared = (numbers: ArrayLike<number>): Int32Array => {
  const array = new Int32Array(
    new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT * numbers.length),
  );
  for (let i = 0; i < numbers.length; i++) array[i] = numbers[i] ?? 0;
  return array;
};
