import { escapePattern } from './escapePattern.js';
import type { Span } from './lines.js';
import { outsideWord, patternHits } from './patternHits.js';

/** What one place of a pattern takes: one character, or any number of them. */
interface PatternPosition {
  takes: (character: string) => boolean;
  /** Whether it takes as many as there are, none among them. */
  repeats: boolean;
}

/** What a pattern needs to know of a character. */
interface Character {
  /** Whether words are made of it: a hit neither begins behind one nor ends before one. */
  isOfWord: boolean;
  /** Which places of the pattern take it. */
  takenBy: boolean[];
}

const testerOf = (pattern: string) => {
  const whole = new RegExp(`^${pattern}$`, 'iu');
  return (character: string) => whole.test(character);
};
const isOfWord = testerOf('[\\p{L}\\p{N}]');
const WITHIN_WORD = "[\\p{L}\\p{N}'’-]";
const isWithinWord = testerOf(WITHIN_WORD);
const isSpace = testerOf('\\s');

function positionsOf(pattern: string): PatternPosition[] {
  return [...pattern.replaceAll(/\s+/gu, ' ').replaceAll(/\*+/gu, '*')].flatMap((character) => {
    if (character === '*') return [{ takes: isWithinWord, repeats: true }];
    if (character === '?') return [{ takes: isOfWord, repeats: false }];
    if (character === ' ')
      return [
        { takes: isSpace, repeats: false },
        { takes: isSpace, repeats: true },
      ];
    return [{ takes: testerOf(escapePattern(character)), repeats: false }];
  });
}

/** A regular expression may try a word from each of its hyphens: words longer than this are not left to one. */
const LONG_WORD = 100;

function hasLongWord(text: string): boolean {
  // back from where such a word would end, to the space that shows that there is none
  for (let from = 0, at = LONG_WORD; at < text.length; from += 1, at = from + LONG_WORD) {
    while (at >= from && text[at] !== ' ') at--;
    if (at < from) return true;
    from = at;
  }
  return false;
}

/**
 * Finds words by a pattern in which `*` stands for any characters of a word, `'`, `’` and `-` among them, and `?` for
 * one letter or digit, whatever the case: from left to right the longest each time, none empty, none overlapping.
 * The time grows with the length of the text, however many stars there are.
 *
 * @returns spans in UTF-16 units
 */
export function wildcardFinder(pattern: string): (text: string) => Iterable<Span> {
  const followed = followingFinder(pattern);
  const regExp = asRegExp(pattern);
  if (!regExp) return followed;
  return (text) => (hasLongWord(text) ? followed(text) : patternHits(text, regExp));
}

/** The pattern of one word as a regular expression, five times as fast as what else there is; null for several words. */
function asRegExp(pattern: string): RegExp | null {
  if (/\s/u.test(pattern)) return null;
  const pieces = pattern
    .split(/\*+/u)
    .map((piece) => escapePattern(piece).replaceAll('\\?', '[\\p{L}\\p{N}]'));
  // where a piece stands first is as good as any later place: it is never tried elsewhere (`\1` holds on to it)
  const body = pieces.map((piece, p) => {
    if (p === 0) return piece;
    if (p === pieces.length - 1) return `${WITHIN_WORD}*${piece}`;
    return `(?=(${WITHIN_WORD}*?${piece}))\\${p}`;
  });
  return new RegExp(outsideWord(body.join('')), 'giu');
}

/**
 * As `wildcardFinder`, for any pattern and text. All beginnings are followed at once, each place of the pattern
 * remembering the leftmost (Thompson, Programming Techniques: Regular expression search algorithm, 1968): the time is
 * the text's length times the pattern's, where a backtracking search takes the length to the power of the stars.
 */
export function followingFinder(pattern: string): (text: string) => Generator<Span> {
  const places = positionsOf(pattern);
  const known = new Map<number, Character>();
  const characterAt = (text: string, index: number): Character => {
    const point = text.codePointAt(index)!;
    let character = known.get(point);
    if (!character) {
      const written = String.fromCodePoint(point);
      const takenBy = places.map((place) => place.takes(written));
      known.set(point, (character = { isOfWord: isOfWord(written), takenBy }));
    }
    return character;
  };
  return (text) => hits(text, places, characterAt);
}

const NOWHERE = -1;

function* hits(
  text: string,
  places: readonly PatternPosition[],
  characterAt: (text: string, index: number) => Character,
): Generator<Span> {
  const end = places.length;
  // where the leftmost hit began that waits at each place; the one behind the last is a hit
  let waiting = new Int32Array(end + 1).fill(NOWHERE);
  let next = new Int32Array(end + 1).fill(NOWHERE);
  const put = (starts: Int32Array, place: number, start: number) => {
    for (let p = place; ; p++) {
      if (starts[p] === NOWHERE || start < starts[p]!) starts[p] = start;
      // what repeats may take nothing
      if (p === end || !places[p]!.repeats) return;
    }
  };
  let best: Span | null = null;
  let anyWaits = false;
  let isBehindWord = false;
  let at = 0;
  for (;;) {
    const character = at < text.length ? characterAt(text, at) : null;
    const start = waiting[end]!;
    const isHit = start !== NOWHERE && start < at && !character?.isOfWord;
    if (isHit && (!best || start <= best.start)) best = { start, end: at };
    if (best && (!anyWaits || !character)) {
      yield best;
      // what stands behind the hit may have been passed while a longer one was looked for
      at = best.end;
      isBehindWord = at > 0 && characterAt(text, characterBefore(text, at)).isOfWord;
      best = null;
      anyWaits = false;
      waiting.fill(NOWHERE);
      continue;
    }
    if (!character) return;
    if (!isBehindWord && !best) {
      put(waiting, 0, at);
      anyWaits = true;
    }
    if (anyWaits) {
      anyWaits = false;
      for (let p = 0; p < end; p++) {
        const from = waiting[p]!;
        // once a hit is known, those that begin behind it are none
        if (from === NOWHERE || (best && from > best.start) || !character.takenBy[p]) continue;
        put(next, places[p]!.repeats ? p : p + 1, from);
        anyWaits = true;
      }
      [waiting, next] = [next, waiting];
      next.fill(NOWHERE);
    }
    isBehindWord = character.isOfWord;
    at += text.codePointAt(at)! > 0xffff ? 2 : 1;
  }
}

/** Where the character begins that stands before an index. */
function characterBefore(text: string, index: number): number {
  const unit = text.charCodeAt(index - 1);
  const isTail = unit >= 0xdc00 && unit <= 0xdfff && index > 1;
  return isTail && text.codePointAt(index - 2)! > 0xffff ? index - 2 : index - 1;
}
