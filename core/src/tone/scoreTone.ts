import type { Span } from '../text/index.js';
import {
  CAPITALS,
  DEGREES,
  IDIOMS,
  NEGATED,
  NEGATIONS,
  STRONGER,
  WEAKER_PAIRS,
  type ToneLexicon,
} from './lexicon.js';
import type { Tone } from './tones.js';

/** The tone of a line by its words. */
export interface ScoredTone {
  tone: Tone;
  /** 0 to 1. */
  strength: number;
  /** The sum of all ratings, from −1 to 1. */
  compound: number;
  /** How much of the line is positive, negative and neither: together 1. */
  positive: number;
  negative: number;
  neutral: number;
  /** The rated words, each with what it counts for after negation and degree; places in UTF-16 units. */
  words: (Span & { rating: number })[];
}

/** From here on a line counts as positive or negative, as the lexicon's authors propose. */
const LEAST_COMPOUND = 0.05;
/** Mixed, where the weaker side has at least this share of the stronger one (a choice of ours). */
const MIXED = 0.4;
/** What the sum is scaled by: about the largest that is to be expected. */
const ALPHA = 15;
/** Further back a word neither negates nor strengthens. */
const REACH = 3;
/** What a degree keeps of its effect by how far back it stands. */
const FADING = [1, 0.95, 0.9];
const BEFORE_BUT = 0.5;
const AFTER_BUT = 1.5;

interface Token extends Span {
  written: string;
  word: string;
  isCapitals: boolean;
}

/**
 * Scores the tone of a line by a lexicon of rated words, with negation, degrees, capitals, exclamation marks and what
 * stands behind a “but”. Irony is not seen, nor what is good or bad only here (“the queue”, “on time”).
 *
 * @see Hutto & Gilbert (2014) VADER: a parsimonious rule-based model for sentiment analysis of social media text
 */
export function scoreTone(text: string, lexicon: ToneLexicon): ScoredTone {
  const tokens = tokensOf(text, lexicon);
  // most lines of a survey have no such word
  if (!tokens.some(({ word }) => lexicon.has(word))) return WITHOUT_TONE;
  const isCapitalsTelling =
    tokens.some(({ isCapitals }) => isCapitals) && !tokens.every(({ isCapitals }) => isCapitals);
  const ratings = tokens.map((_, i) => ratingAt(tokens, i, lexicon, isCapitalsTelling));
  const but = tokens.findIndex(({ word }) => word === 'but');
  if (but >= 0)
    for (let i = 0; i < ratings.length; i++)
      if (i !== but) ratings[i]! *= i < but ? BEFORE_BUT : AFTER_BUT;
  const emphasis = emphasisOf(text);
  const sum = ratings.reduce((all, one) => all + one, 0);
  const total = sum + Math.sign(sum) * emphasis;
  const compound = total / Math.sqrt(total * total + ALPHA);
  // a neutral word counts as 1, a rated one as 1 and its rating
  let positive = ratings.reduce((all, one) => all + (one > 0 ? one + 1 : 0), 0);
  let negative = ratings.reduce((all, one) => all + (one < 0 ? 1 - one : 0), 0);
  const neutral = ratings.filter((one) => one === 0).length;
  if (positive > negative) positive += emphasis;
  else if (negative > positive) negative += emphasis;
  const all = positive + negative + neutral || 1;
  const tone = toneOf(compound, positive, negative);
  return {
    tone,
    strength: tone === 'mixed' ? weakerOf(ratings) : tone === 'none' ? 0 : Math.abs(compound),
    compound,
    ...{ positive: positive / all, negative: negative / all, neutral: neutral / all },
    words: tokens.flatMap(({ start, end }, i) =>
      ratings[i] === 0 ? [] : [{ start, end, rating: ratings[i]! }],
    ),
  };
}

const WITHOUT_TONE: ScoredTone = {
  ...{ tone: 'none', strength: 0, compound: 0, positive: 0, negative: 0, neutral: 1, words: [] },
};

function toneOf(compound: number, positive: number, negative: number): Tone {
  const isBoth = positive > 0 && negative > 0;
  if (isBoth && Math.min(positive, negative) >= MIXED * Math.max(positive, negative))
    return 'mixed';
  if (compound >= LEAST_COMPOUND) return 'positive';
  return compound <= -LEAST_COMPOUND ? 'negative' : 'none';
}

/** The side that weighs less, scaled as the sum of both is: 0 to 1. */
function weakerOf(ratings: readonly number[]): number {
  const sumOf = (sign: number) => ratings.reduce((sum, one) => sum + Math.max(0, sign * one), 0);
  const weaker = Math.min(sumOf(1), sumOf(-1));
  return weaker / Math.sqrt(weaker * weaker + ALPHA);
}

const isWordCharacter = (code: number): boolean =>
  (code >= 97 && code <= 122) ||
  (code >= 65 && code <= 90) ||
  (code >= 48 && code <= 57) ||
  // all but signs of Latin and general punctuation
  (code > 0xbf && (code < 0x2000 || code > 0x206f));

/** Words with the punctuation at their ends taken off; signs that are rated themselves are kept whole. */
function tokensOf(text: string, lexicon: ToneLexicon): Token[] {
  const plain = text.includes('’') ? text.replaceAll('’', "'") : text;
  const tokens: Token[] = [];
  let end = 0;
  for (;;) {
    let start = end;
    while (start < plain.length && isSpace(plain.charCodeAt(start))) start += 1;
    if (start === plain.length) break;
    end = start;
    while (end < plain.length && !isSpace(plain.charCodeAt(end))) end += 1;
    let [first, last] = [start, end];
    while (first < end && !isWordCharacter(plain.charCodeAt(first))) first += 1;
    while (last > first && !isWordCharacter(plain.charCodeAt(last - 1))) last -= 1;
    const isBare = first === start && last === end;
    if (!isBare && lexicon.has(plain.slice(start, end).toLowerCase())) [first, last] = [start, end];
    // one letter alone says nothing of tone
    if (last - first < 2) continue;
    tokens.push(tokenAt(plain.slice(first, last), first, last));
  }
  return tokens;
}

const isSpace = (code: number): boolean =>
  code <= 32 || code === 0xa0 || (code >= 0x2000 && code <= 0x200b) || code === 0x3000;

const tokenAt = (written: string, start: number, end: number): Token => ({
  ...{ written, start, end, word: written.toLowerCase() },
  isCapitals: written !== written.toLowerCase() && written === written.toUpperCase(),
});

/** What the word at a place counts for. */
function ratingAt(
  tokens: readonly Token[],
  i: number,
  lexicon: ToneLexicon,
  isCapitalsTelling: boolean,
): number {
  const { word, isCapitals } = tokens[i]!;
  const wordAt = (back: number) => tokens[i - back]?.word ?? '';
  const next = tokens[i + 1]?.word ?? '';
  let rating = lexicon.get(word);
  if (rating === undefined || DEGREES.has(word)) return 0;
  if (WEAKER_PAIRS.has(`${word} ${next}`)) return 0;
  // “no” before a rated word negates it and says nothing itself
  if (word === 'no' && lexicon.has(next)) return 0;
  const isNo =
    wordAt(1) === 'no' ||
    wordAt(2) === 'no' ||
    (wordAt(3) === 'no' && ['or', 'nor'].includes(wordAt(1)));
  if (isNo) rating *= NEGATED;
  if (isCapitals && isCapitalsTelling) rating += Math.sign(rating) * CAPITALS;
  for (let back = 1; back <= REACH && back <= i; back++) {
    if (lexicon.has(wordAt(back))) continue;
    rating += FADING[back - 1]! * degreeOf(tokens[i - back]!, rating, isCapitalsTelling);
    rating = negatedBy(wordAt, back, rating);
    if (back === REACH) rating = idiomAt(wordAt, next, rating);
  }
  return negatedByLeast(wordAt, lexicon, rating);
}

function degreeOf({ word, isCapitals }: Token, rating: number, isCapitalsTelling: boolean): number {
  const degree = DEGREES.get(word);
  if (degree === undefined) return 0;
  const signed = rating < 0 ? -degree : degree;
  return isCapitals && isCapitalsTelling ? signed + Math.sign(rating) * CAPITALS : signed;
}

const isNegation = (word: string): boolean =>
  NEGATIONS.has(word.replaceAll("'", '')) || word.includes("n't");
const isSo = (word: string): boolean => word === 'so' || word === 'this';

function negatedBy(wordAt: (back: number) => string, back: number, rating: number): number {
  // “never so good” is praise, “without doubt” no negation
  const isNeverSo =
    (back === 2 && wordAt(2) === 'never' && isSo(wordAt(1))) ||
    (back === 3 && wordAt(3) === 'never' && (isSo(wordAt(2)) || isSo(wordAt(1))));
  if (isNeverSo) return rating * 1.25;
  const isWithoutDoubt =
    wordAt(back) === 'without' && (wordAt(1) === 'doubt' || (back === 3 && wordAt(2) === 'doubt'));
  if (isWithoutDoubt) return rating;
  return isNegation(wordAt(back)) ? rating * NEGATED : rating;
}

function idiomAt(wordAt: (back: number) => string, next: string, rating: number): number {
  const runs = [
    `${wordAt(1)} ${wordAt(0)}`,
    `${wordAt(2)} ${wordAt(1)} ${wordAt(0)}`,
    `${wordAt(2)} ${wordAt(1)}`,
    `${wordAt(3)} ${wordAt(2)} ${wordAt(1)}`,
    `${wordAt(3)} ${wordAt(2)}`,
    `${wordAt(0)} ${next}`,
  ];
  const idiom = runs.find((run) => IDIOMS.has(run));
  const rated = idiom === undefined ? rating : IDIOMS.get(idiom)!;
  const isWeaker =
    WEAKER_PAIRS.has(`${wordAt(2)} ${wordAt(1)}`) || WEAKER_PAIRS.has(`${wordAt(3)} ${wordAt(2)}`);
  return isWeaker ? rated - STRONGER : rated;
}

/** “the least helpful” is no praise; “at least helpful” and “the very least” are. */
function negatedByLeast(
  wordAt: (back: number) => string,
  lexicon: ToneLexicon,
  rating: number,
): number {
  if (wordAt(1) !== 'least' || lexicon.has('least')) return rating;
  return ['at', 'very'].includes(wordAt(2)) ? rating : rating * NEGATED;
}

/** What exclamation marks and several question marks add. */
function emphasisOf(text: string): number {
  const count = (sign: string) => text.split(sign).length - 1;
  const questions = count('?');
  const asked = questions > 3 ? 0.96 : questions > 1 ? questions * 0.18 : 0;
  return Math.min(4, count('!')) * 0.292 + asked;
}
