import { isAscii } from './ascii.js';
import type { Span } from './lines.js';
import { foldForMatching } from './normalise.js';

// Combining Diacritical Marks with their extensions and half marks. Marks of other scripts are part of the letter:
// vowel signs of Devanagari and Thai, the voicing marks of kana.
const MARKS =
  /[\u{0300}-\u{036F}]|[\u{1AB0}-\u{1AFF}]|[\u{1DC0}-\u{1DFF}]|[\u{20D0}-\u{20FF}]|[\u{FE20}-\u{FE2F}]/gu;
const NOT_ASCII = /[^\0-\u007F]/gu;
/** The same letters come again and again. */
const known = new Map<string, string>();
const MOST_KNOWN = 20_000;

/** Letters with a stroke, and ligatures, which Unicode does not take apart. */
export const FOLDED_LETTERS: Readonly<Record<string, string>> = {
  ß: 'ss',
  ẞ: 'SS',
  ø: 'o',
  Ø: 'O',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  Đ: 'D',
  æ: 'ae',
  Æ: 'AE',
  œ: 'oe',
  Œ: 'OE',
  ı: 'i',
  ħ: 'h',
  Ħ: 'H',
  // apostrophes are written in either way
  '‘': "'",
  '’': "'",
};

function foldCharacter(character: string): string {
  let folded = known.get(character);
  if (folded === undefined) {
    folded =
      FOLDED_LETTERS[character] ?? character.normalize('NFKD').replace(MARKS, '').normalize('NFC');
    if (known.size < MOST_KNOWN) known.set(character, folded);
  }
  return folded;
}

/** A text without its accents, and the way back to where its characters stood. */
export interface FoldedText {
  text: string;
  /** What a stretch of the folded text covers in the original one, in UTF-16 units. */
  original: (span: Span) => Span;
}

/**
 * Drops the accents of letters, and takes compatibility forms (ligatures, full width …) apart: Unicode NFKD without
 * combining diacritical marks (Unicode Standard Annex 15). ß, ø, æ and the like become ss, o, ae; curly apostrophes
 * become straight ones. Case stays.
 */
export function foldAccents(text: string): FoldedText {
  const asItIs = (span: Span) => span;
  if (isAscii(text)) return { text, original: asItIs };
  let isAsLong = true;
  const folded = text.replace(NOT_ASCII, (character) => {
    const to = foldCharacter(character);
    // a character of two units may become two others, of which each leads back to all of it
    if (to.length !== character.length || (character.length > 1 && to !== character))
      isAsLong = false;
    return to;
  });
  if (isAsLong) return { text: folded, original: asItIs };
  const places = new Int32Array(folded.length + 1);
  let at = 0;
  let from = 0;
  for (const character of text) {
    const { length } = character <= '\u007F' ? character : foldCharacter(character);
    places.fill(from, at, at + length);
    at += length;
    from += character.length;
  }
  places[at] = text.length;
  return {
    text: folded,
    original: ({ start, end }) => {
      // up to where the next character begins: what was one stays whole, marks stay with their letter
      let last = end;
      while (last < folded.length && places[last] === places[end - 1]) last++;
      return { start: places[start]!, end: places[last]! };
    },
  };
}

/** The form of a text in which it is searched: without accents, and folded for matching. */
export const foldForSearch = (text: string): string => foldForMatching(foldAccents(text).text);
