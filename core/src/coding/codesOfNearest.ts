import type { SentenceVectors } from '../sentences/index.js';
import { likeThese } from '../similarity/index.js';

const NEAREST = 7;
/** Less alike than this, two answers share little more than a word that many use. */
const LEAST_LIKENESS = 0.25;
/** The same where their meaning is compared, too: answers in other words are less alike. */
const LEAST_LIKENESS_IN_MEANING = 0.1;

/** One of several texts, by its index, and how like it is. */
export interface NearText {
  index: number;
  near: number;
}

/**
 * The few of some texts that are like one.
 *
 * @param vectors sentence vectors of all of them; null where nothing is read for meaning
 * @returns most like first; empty where none is like it
 */
export function nearestTexts(
  text: string,
  others: readonly string[],
  vectors: SentenceVectors | null = null,
): NearText[] {
  const [, ...likeness] = likeThese([text, ...others], [0], vectors);
  const least = vectors ? LEAST_LIKENESS_IN_MEANING : LEAST_LIKENESS;
  return likeness
    .map((near, index) => ({ near, index }))
    .filter(({ near }) => near >= least)
    .sort((x, y) => y.near - x.near)
    .slice(0, NEAREST);
}

/**
 * The codes of the coded answers nearest to a text, each with its share of their similarity: a vote of
 * the nearest, weighted by how near they are.
 *
 * @param vectors sentence vectors of the text and the answers; null where nothing is read for meaning
 * @returns shares from 0 to 1, by code; empty where no coded answer is like the text
 * @see Dudani (1976) The distance-weighted k-nearest-neighbor rule
 */
export function codesOfNearest(
  text: string,
  coded: readonly { text: string; codeIds: readonly string[] }[],
  vectors: SentenceVectors | null = null,
): Map<string, number> {
  const texts = coded.map((one) => one.text);
  return sharesOf(
    nearestTexts(text, texts, vectors).map(({ near, index }) => ({
      near,
      codeIds: coded[index]!.codeIds,
    })),
  );
}

/** The share of each code in what is near: 0 to 1. */
export function sharesOf(
  nearest: readonly { near: number; codeIds: readonly string[] }[],
): Map<string, number> {
  const all = nearest.reduce((sum, { near }) => sum + near, 0);
  const shares = new Map<string, number>();
  for (const { near, codeIds } of nearest)
    for (const codeId of new Set(codeIds))
      // parts of a whole may add up to a hair more than it
      shares.set(codeId, Math.min(1, (shares.get(codeId) ?? 0) + near / all));
  return shares;
}

/**
 * How likely codes are where one codes, for ranking: what the models say of an answer they learnt from all that are
 * coded, the nearest are a few, and count half.
 */
export const weighLikely = (
  suggested: readonly { codeId: string; probability: number }[],
  near: readonly { codeId: string; share: number }[],
): Map<string, number> =>
  new Map([
    ...near.map(({ codeId, share }) => [codeId, share / 2] as const),
    ...suggested.map(({ codeId, probability }) => [codeId, probability] as const),
  ]);
