import { countOf, countOfBoth, intersect, type Bitset } from '../groups/index.js';

/** How two codes occur together among people. */
export interface Together {
  both: number;
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
export function togetherness(both: number, one: number, other: number, n: number): Together {
  const either = one + other - both;
  const spread = Math.sqrt(one * (n - one) * other * (n - other));
  return {
    both,
    jaccard: either > 0 ? both / either : null,
    phi: spread > 0 ? (both * n - one * other) / spread : null,
    lift: one > 0 && other > 0 ? (both * n) / (one * other) : null,
  };
}

/**
 * How often every two codes occur together among members of a group.
 *
 * @param codes who mentions each, and for whom that is decided
 * @param members the group
 * @returns by code and other code, those decided for both counted; null on the diagonal
 */
export function countTogether(
  codes: readonly { mentioned: Bitset; decided: Bitset }[],
  members: Bitset,
): { n: number; people: number; cells: (Together | null)[] }[] {
  const inGroup = codes.map(({ mentioned, decided }) => ({
    decided: intersect(decided, members),
    mentioned: intersect(intersect(mentioned, decided), members),
  }));
  return inGroup.map((one, i) => ({
    n: countOf(one.decided),
    people: countOf(one.mentioned),
    cells: inGroup.map((other, j) => {
      if (i === j) return null;
      return togetherness(
        countOfBoth(one.mentioned, other.mentioned),
        countOfBoth(one.mentioned, other.decided),
        countOfBoth(other.mentioned, one.decided),
        countOfBoth(one.decided, other.decided),
      );
    }),
  }));
}
