import { countOf, countOfBoth, forEachIn, intersect, type Bitset } from '../groups/index.js';

/** How two codes occur together among people. */
export interface Together {
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
): Omit<Together, 'unweighted'> {
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
      };
    }),
  }));
}

function sumOf(set: Bitset, weights: Float64Array): number {
  let sum = 0;
  forEachIn(set, (i) => {
    sum += weights[i]!;
  });
  return sum;
}
