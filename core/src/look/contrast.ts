import { adjust, chiSquareTail, logLikelihood } from '../statistics/index.js';
import type { LeftOut } from './look.js';
import { findPhrases } from './phrases.js';
import { termsIn, type TermTexts } from './readTerms.js';
import { answersUsing, countWords } from './wordCounts.js';

/** How a word or phrase is used by some people and by everybody else. */
export interface TermContrast {
  term: string;
  isPhrase: boolean;
  /** How many of these people use it at least once, and how many of the others. */
  group: number;
  rest: number;
  /** The base-2 logarithm of the ratio of the two shares; half a person stands for none. */
  logRatio: number;
  /** G² of who uses it by where they belong. */
  likelihood: number;
  /** Its p-value, corrected for all terms that were compared (Benjamini & Hochberg). */
  p: number;
}

/** What some people say more often than everybody else, and what they say less often. */
export interface Contrast {
  group: number;
  rest: number;
  /** How many terms were compared. */
  compared: number;
  more: TermContrast[];
  less: TermContrast[];
}

/** What fewer people use than this cannot be told from chance. */
const FEWEST_ANSWERS = 5;
/** How often, in the mean, what is shown may be chance. */
const FALSE_DISCOVERIES = 0.05;

/**
 * Words and phrases that some answers use more, or less, than all others, clearest first: those of which, among all that
 * are compared, at most one in twenty is chance. Counted are people, not how often they say it.
 *
 * @param inGroup by answer, 1 for those that are compared with the others
 * @param most how many terms to give each way at the most
 * @see Dunning (1993) for G²; Hardie (2014) Log Ratio, for the effect; Benjamini & Hochberg (1995) for the correction
 */
export function contrastTerms(
  terms: TermTexts,
  inGroup: Uint8Array,
  { question, setAside }: LeftOut,
  most: number,
): Contrast {
  const asked = termsIn(terms, [question]);
  const aside = termsIn(terms, setAside);
  const group = inGroup.reduce((sum, one) => sum + one, 0);
  const rest = inGroup.length - group;
  const counted = countTerms(terms, inGroup, asked, aside).filter(
    ({ answers }) => answers >= FEWEST_ANSWERS,
  );
  const p = counted.map((one) =>
    chiSquareTail(logLikelihood(one.group, group, one.answers, inGroup.length), 1),
  );
  const corrected = adjust(p, 'benjamini_hochberg');
  const clear = counted
    .map(({ term, isPhrase, answers, group: inside }, i): TermContrast => {
      const outside = answers - inside;
      return {
        term,
        isPhrase,
        group: inside,
        rest: outside,
        logRatio: Math.log2((inside || HALF) / group / ((outside || HALF) / rest)),
        likelihood: logLikelihood(inside, group, answers, inGroup.length),
        p: corrected[i]!,
      };
    })
    .filter((one) => one.p <= FALSE_DISCOVERIES)
    .sort((x, y) => y.likelihood - x.likelihood);
  const isMore = (one: TermContrast) => one.group * rest > one.rest * group;
  return {
    group,
    rest,
    compared: counted.length,
    more: clear.filter(isMore).slice(0, most),
    less: clear.filter((one) => !isMore(one)).slice(0, most),
  };
}

/** What fewer people use names nothing. */
const FEWEST_NAMING = 2;

/** The words that some answers use more than all others, clearest first, clear or not: what they may be called by. */
export function tellingWords(
  terms: TermTexts,
  inGroup: Uint8Array,
  { question, setAside }: LeftOut,
  most: number,
): string[] {
  const group = inGroup.reduce((sum, one) => sum + one, 0);
  const all = inGroup.length;
  const ofWords = answersUsing(terms.start, terms.words, terms.stems.length, inGroup);
  return countWords(terms, termsIn(terms, [question, ...setAside]), Infinity)
    .map(({ id, word, answers }) => ({ word, answers, inside: ofWords[id]! }))
    .filter(({ answers, inside }) => inside >= FEWEST_NAMING && inside * all > answers * group)
    .map((one) => ({ ...one, likelihood: logLikelihood(one.inside, group, one.answers, all) }))
    .sort((x, y) => y.likelihood - x.likelihood)
    .slice(0, most)
    .map(({ word }) => word);
}

/** What a count of none is taken for in a ratio. */
const HALF = 0.5;

/** How many answers use each word and phrase, in all and of some. */
function countTerms(
  terms: TermTexts,
  inGroup: Uint8Array,
  asked: ReadonlySet<number>,
  aside: ReadonlySet<number>,
): { term: string; isPhrase: boolean; answers: number; group: number }[] {
  const ofWords = answersUsing(terms.start, terms.words, terms.stems.length, inGroup);
  const words = countWords(terms, new Set([...asked, ...aside]), Infinity).map(
    ({ id, word, answers }) => ({ term: word, isPhrase: false, answers, group: ofWords[id]! }),
  );
  const { phrases, places } = findPhrases(terms, aside, asked);
  const ofPhrases = places().map((at) => answersUsing(terms.start, at, phrases.length, inGroup));
  return [
    ...words,
    ...phrases.map(({ phrase, answers }, i) => ({
      term: phrase,
      isPhrase: true,
      answers,
      // a phrase has one length
      group: ofPhrases.reduce((sum, counts) => sum + counts[i]!, 0),
    })),
  ];
}
