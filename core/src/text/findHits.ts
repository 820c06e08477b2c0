import { stemmer } from 'stemmer';
import { isAscii } from './ascii.js';
import { escapePattern } from './escapePattern.js';
import { foldAccents } from './foldAccents.js';
import type { Span } from './lines.js';
import { patternHits } from './patternHits.js';
import { wildcardFinder } from './wildcards.js';
import { wordsInLine, wordsOfLists } from './anyOrder.js';
import { splitWords, type Word } from './words.js';

/** How words are looked for. */
export type WordMatch = 'plain' | 'word' | 'stem' | 'wildcard' | 'line' | 'any';

/**
 * Finds where a text holds what is looked for, whatever its case and accents.
 *
 * @param match `plain`: the characters as written, anywhere; `word`: as whole words, as `splitWords` splits them; `stem`: these words one
 *   after the other in any of their English forms (Porter 1980); `wildcard`: words in which `*` stands for any
 *   characters and `?` for one; `line`: these words in any forms and any order, all in one line as `splitLines` splits;
 *   `any`: one of these words in any form, and where lists of words are joined by `+`, one of each list
 * @returns stretches in order that do not overlap; none when nothing is looked for
 * @example
 *   findHits('queues and queueing', 'queue', 'stem') // [{ start: 0, end: 6 }, { start: 11, end: 19 }]
 */
export const findHits = (text: string, words: string, match: WordMatch): Span[] =>
  hitFinder(words, match)(text);

/** `findHits` for many texts: what is looked for is computed once. */
export function hitFinder(words: string, match: WordMatch): (text: string) => Span[] {
  const hitsIn = finder(words, match);
  return (text) => [...hitsIn(text)];
}

/** Whether texts hold what is looked for: each is read up to its first hit only. */
export function hitTester(words: string, match: WordMatch): (text: string) => boolean {
  const hitsIn = finder(words, match);
  return (text) => {
    for (const _ of hitsIn(text)) return true;
    return false;
  };
}

function finder(words: string, match: WordMatch): (text: string) => Iterable<Span> {
  if (match === 'line') return wordsInLine(words);
  if (match === 'any') return wordsOfLists(words.split('+'));
  const hitsIn = foldedFinder(foldAccents(words.trim()).text, match);
  return (text) => {
    if (isAscii(text)) return hitsIn(text);
    const folded = foldAccents(text);
    return inOriginal(hitsIn(folded.text), folded.original);
  };
}

function* inOriginal(hits: Iterable<Span>, original: (span: Span) => Span): Generator<Span> {
  let end = 0;
  for (const hit of hits) {
    const span = original(hit);
    // two hits in what was one character are one
    if (span.start >= end) yield span;
    end = span.end;
  }
}

function foldedFinder(
  wanted: string,
  match: Exclude<WordMatch, 'line' | 'any'>,
): (text: string) => Iterable<Span> {
  if (wanted === '') return () => [];
  if (match === 'stem') return stemFinder(wanted);
  if (match === 'wildcard') return wildcardFinder(wanted);
  const pattern = new RegExp(escapePattern(wanted), 'giu');
  return (text) => (match === 'word' ? wholeWordHits(text, pattern) : patternHits(text, pattern));
}

/** Hits of which no word of the text sticks out. */
function* wholeWordHits(text: string, pattern: RegExp): Generator<Span> {
  const hits = new RegExp(pattern);
  let words: Word[] | null = null;
  for (let found = hits.exec(text); found; found = hits.exec(text)) {
    const { index: start } = found;
    const end = start + found[0].length;
    words ??= splitWords(text);
    if (isWithinWord(words, start) || isWithinWord(words, end)) hits.lastIndex = start + 1;
    else yield { start, end };
  }
}

/** Whether a place lies inside one of some words in order. */
function isWithinWord(words: readonly Word[], at: number): boolean {
  let low = 0;
  let high = words.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (words[middle]!.end <= at) low = middle + 1;
    else high = middle;
  }
  return low < words.length && words[low]!.start < at;
}

function stemFinder(wanted: string): (text: string) => Iterable<Span> {
  const stems = splitWords(wanted).map((word) => stemmer(word.form));
  if (stems.length === 0) return () => [];
  const [stem] = stems;
  const quick = stems.length === 1 ? plainWordsFrom(beginningOf(stem!)) : null;
  const isForm = formsOf(stem!);
  return (text) =>
    quick && isAscii(text)
      ? formHits(text, patternHits(text, quick), isForm)
      : stemHits(text, stems);
}

function* formHits(text: string, words: Iterable<Span>, isForm: (word: string) => boolean) {
  for (const word of words) if (isForm(text.slice(word.start, word.end).toLowerCase())) yield word;
}

/** Words that begin alike are few, and met again and again. */
function formsOf(stem: string): (word: string) => boolean {
  const known = new Map<string, boolean>();
  return (word) => {
    const before = known.get(word);
    if (before !== undefined) return before;
    const isForm = stemmer(word) === stem;
    known.set(word, isForm);
    return isForm;
  };
}

/** A form of a word begins as its stem does, but for the stem's last letter: most words need no stemming. */
const beginningOf = (stem: string) => stem.slice(0, -1);

/** Words of ASCII text with this beginning, as `splitWords` splits them; null where that could not tell them. */
function plainWordsFrom(beginning: string): RegExp | null {
  // after an apostrophe a word goes on with letters only
  if (!/^[a-z][a-z0-9]*$/.test(beginning)) return null;
  return new RegExp(`(?<![a-z0-9]|[a-z0-9]')${beginning}[a-z0-9]*(?:'[a-z]+)*`, 'gi');
}

function* stemHits(text: string, stems: readonly string[]): Generator<Span> {
  const beginnings = stems.map(beginningOf);
  const words = splitWords(text);
  for (let w = 0; w + stems.length <= words.length; w++) {
    const fits = stems.every((stem, s) => {
      const { form } = words[w + s]!;
      return form.startsWith(beginnings[s]!) && stemmer(form) === stem;
    });
    if (!fits) continue;
    yield { start: words[w]!.start, end: words[w + stems.length - 1]!.end };
    w += stems.length - 1;
  }
}

/**
 * What every text of ASCII with a hit holds, whatever its case: a cheap first question to a database.
 *
 * @returns characters without any special meaning; empty when nothing can be said
 */
export function hitMustHold(words: string, match: WordMatch): string {
  const wanted = foldAccents(words.trim()).text;
  // a stem's last letters may change with the form (happy, happily)
  const beginnings = splitWords(wanted).map(
    (word) => stemmer(word.form).slice(0, -1) || word.form.slice(0, 1),
  );
  const pieces = {
    plain: [wanted],
    word: [wanted],
    wildcard: wanted.split(/[*?\s]+/u),
    any: [],
    stem: beginnings,
    line: beginnings,
  };
  const longest = pieces[match].reduce((best, one) => (one.length > best.length ? one : best), '');
  // a run of white space may be written otherwise
  return longest.split(/\s/u).reduce((best, one) => (one.length > best.length ? one : best), '');
}
