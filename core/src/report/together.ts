import { adjust, chiSquareTail, fisherExact, logLikelihood } from '../statistics/index.js';
import { countOf, countOfBoth, forEachIn, intersect, type Bitset } from '../groups/index.js';

/** How two codes occur together among people. */
export interface Together {
  /** Probability that as much, either way, is chance; corrected for all pairs (Benjamini & Hochberg). */
  p: number;
  both: number;
  /** How many have both, whatever their weights. */
  unweighted: number;
  /** Those with both among those with either, 0 to 1; null where nobody has either. */
  jaccard: number | null;
  /** Correlation of having them, −1 to 1; null where somebody's having one is no news. */
  phi: number | null;
  /** How many times as often as if they had nothing to do with each other; null where one does not occur. */
  lift: number | null;
}

/**
 * @param both people with both codes, of `one` with the first, `other` with the second, and `n` in all
 * @see Jaccard (1901); phi: Yule (1912); lift: Brin, Motwani, Ullman & Tsur (1997)
 */
export function togetherness(
  both: number,
  one: number,
  other: number,
  n: number,
): Omit<Together, 'unweighted' | 'p'> {
  const either = one + other - both;
  const spread = Math.sqrt(one * (n - one) * other * (n - other));
  return {
    both,
    jaccard: either > 0 ? both / either : null,
    phi: spread > 0 ? (both * n - one * other) / spread : null,
    lift: one > 0 && other > 0 ? (both * n) / (one * other) : null,
  };
}

/** How a code occurs among people, and with each of the other codes. */
export interface CodeTogether {
  /** For how many it is decided, and how many of these mention it: sums of weights where there are any. */
  n: number;
  people: number;
  unweighted: { n: number; people: number };
  /** With each of the other codes, those decided for both counted; null with itself. */
  cells: (Together | null)[];
}

/**
 * How often every two codes occur together among members of a group.
 *
 * @param codes who mentions each, and for whom that is decided
 * @param members the group
 * @param weights of people, by their place; null where each counts as one
 */
export function countTogether(
  codes: readonly { mentioned: Bitset; decided: Bitset }[],
  members: Bitset,
  weights: Float64Array | null = null,
): CodeTogether[] {
  const inGroup = codes.map(({ mentioned, decided }) => ({
    decided: intersect(decided, members),
    mentioned: intersect(intersect(mentioned, decided), members),
  }));
  const sizeOf = (set: Bitset): number => (weights ? sumOf(set, weights) : countOf(set));
  const sizeOfBoth = (one: Bitset, other: Bitset): number =>
    weights ? sumOf(intersect(one, other), weights) : countOfBoth(one, other);
  const p = testPairs(inGroup);
  return inGroup.map((one, i) => ({
    n: sizeOf(one.decided),
    people: sizeOf(one.mentioned),
    unweighted: { n: countOf(one.decided), people: countOf(one.mentioned) },
    cells: inGroup.map((other, j) => {
      if (i === j) return null;
      return {
        ...togetherness(
          sizeOfBoth(one.mentioned, other.mentioned),
          sizeOfBoth(one.mentioned, other.decided),
          sizeOfBoth(other.mentioned, one.decided),
          sizeOfBoth(one.decided, other.decided),
        ),
        unweighted: countOfBoth(one.mentioned, other.mentioned),
        p: p(i, j),
      };
    }),
  }));
}

/** Fewer than this expected in some cell: the exact test, which takes longer the more people there are. */
const FEW_EXPECTED = 5;

/**
 * Tests whether each two codes occur together more or less than by chance, on people without their weights.
 *
 * @see Fisher (1935) The design of experiments; Dunning (1993) for G², where there are enough; Benjamini & Hochberg
 *   (1995) for the correction
 */
function testPairs(
  codes: readonly { mentioned: Bitset; decided: Bitset }[],
): (one: number, other: number) => number {
  const p: number[] = [];
  const placeOf = codes.map((): number[] => []);
  for (const [i, one] of codes.entries())
    for (const [j, other] of codes.slice(0, i).entries()) {
      const both = countOfBoth(one.mentioned, other.mentioned);
      const ones = countOfBoth(one.mentioned, other.decided);
      const others = countOfBoth(other.mentioned, one.decided);
      const n = countOfBoth(one.decided, other.decided);
      placeOf[i]![j] = placeOf[j]![i] = p.length;
      const least = (Math.min(ones, n - ones) * Math.min(others, n - others)) / n;
      p.push(
        least < FEW_EXPECTED
          ? fisherExact(both, ones, others - both, n - ones)
          : chiSquareTail(logLikelihood(both, ones, others, n), 1),
      );
    }
  const corrected = adjust(p, 'benjamini_hochberg');
  return (one, other) => corrected[placeOf[one]![other]!]!;
}

function sumOf(set: Bitset, weights: Float64Array): number {
  let sum = 0;
  forEachIn(set, (i) => {
    sum += weights[i]!;
  });
  return sum;
}
