import { adjust, chiSquareTail, logLikelihood, npmi } from '../statistics/index.js';
import type { LeftOut } from './look.js';
import { answerStarts, termsIn, type TermLines } from './readTerms.js';
import { answersUsing, countWords } from './wordCounts.js';

/** Two words that stand in the same line more often than by chance. */
export interface WordLink {
  /** Their indices among the words. */
  from: number;
  to: number;
  /** How many answers have a line with both. */
  answers: number;
  /** How many lines have both. */
  lines: number;
  /** Normalised pointwise mutual information over lines: 0 as often as by chance, 1 never apart. */
  npmi: number;
}

/** The words that most people use, and which of them keep company. */
export interface LinkedWords {
  words: { id: number; word: string; answers: number }[];
  links: WordLink[];
}

const FEWEST_ANSWERS = 3;
/** What one person says is one person's. */
const FEWEST_TOGETHER = 2;
/** A word of fewer people than this share could hardly show its company. */
const LEAST_SHARE = 0.01;
/** How often, in the mean, a link that is drawn may be chance. */
const FALSE_DISCOVERIES = 0.1;
/** Links by word that are drawn: with more a picture is a ball of wool. */
const LINKS_A_WORD = 2.5;

/**
 * The words of the same lines: those that most people use, and the strongest of the links between them that remain
 * significant when all pairs are tested (G², Benjamini & Hochberg). Each word keeps its strongest link.
 *
 * @param hidden words that stand aside in this picture
 * @param most how many words to give at the most
 * @see Dunning (1993) for G²; Bouma (2009) Normalized (pointwise) mutual information in collocation extraction
 */
export function linkWords(
  termLines: TermLines,
  { question, setAside }: LeftOut,
  hidden: readonly string[],
  most: number,
): LinkedWords {
  const { terms, answerOf } = termLines;
  const ignored = termsIn(terms, [question, ...setAside, ...hidden]);
  const byAnswer = { ...terms, start: answerStarts(termLines) };
  const fewest = Math.max(FEWEST_ANSWERS, LEAST_SHARE * termLines.answers);
  const words = countWords(byAnswer, ignored, most).filter(({ answers }) => answers >= fewest);
  const met = countPairs(termLines, words);
  const lines = answerOf.length;
  const ofLines = answersUsing(terms.start, terms.words, terms.stems.length);
  const pairs: WordLink[] = [];
  const p: number[] = [];
  for (let to = 1; to < words.length; to++)
    for (let from = 0; from < to; from++) {
      const both = met.lines[from * words.length + to]!;
      const [one, other] = [ofLines[words[from]!.id]!, ofLines[words[to]!.id]!];
      const answers = met.answers[from * words.length + to]!;
      const isMore = answers >= FEWEST_TOGETHER && both * lines > one * other;
      p.push(isMore ? chiSquareTail(logLikelihood(both, one, other, lines), 1) : 1);
      pairs.push({
        from,
        to,
        answers,
        lines: both,
        npmi: isMore ? npmi(both, one, other, lines) : 0,
      });
    }
  const corrected = adjust(p, 'benjamini_hochberg');
  const significant = pairs.filter((_, i) => corrected[i]! <= FALSE_DISCOVERIES);
  return {
    words: words.map(({ id, word, answers }) => ({ id, word, answers })),
    links: strongest(significant, words.length),
  };
}

/** In how many lines, and in how many answers, two words meet: at the place of the first in a row of the second. */
function countPairs(
  { terms, answerOf }: TermLines,
  words: readonly { id: number }[],
): { lines: Int32Array; answers: Int32Array } {
  const size = words.length;
  const placeOf = new Int32Array(terms.stems.length).fill(-1);
  for (const [place, { id }] of words.entries()) placeOf[id] = place;
  const lines = new Int32Array(size * size);
  const answers = new Int32Array(size * size);
  const lastIn = new Int32Array(size * size).fill(-1);
  for (let line = 0; line < answerOf.length; line++) {
    const here = new Set<number>();
    for (let w = terms.start[line]!; w < terms.start[line + 1]!; w++) {
      const place = placeOf[terms.words[w]!]!;
      if (place >= 0) here.add(place);
    }
    const sorted = [...here].sort((x, y) => x - y);
    for (const [i, from] of sorted.entries())
      for (const to of sorted.slice(i + 1)) {
        const cell = from * size + to;
        lines[cell]! += 1;
        if (lastIn[cell] === answerOf[line]) continue;
        lastIn[cell] = answerOf[line]!;
        answers[cell]! += 1;
      }
  }
  return { lines, answers };
}

/** As many of the strongest links as can be drawn, and each word's strongest. */
function strongest(links: readonly WordLink[], words: number): WordLink[] {
  const sorted = links.toSorted((x, y) => y.npmi - x.npmi || y.lines - x.lines);
  const most = Math.ceil(LINKS_A_WORD * words);
  const seen = new Set<number>();
  return sorted.filter((link, rank) => {
    const isFirst = !seen.has(link.from) || !seen.has(link.to);
    seen.add(link.from).add(link.to);
    return rank < most || isFirst;
  });
}
