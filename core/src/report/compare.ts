import {
  adjust,
  compareShares,
  fTail,
  newcombeInterval,
  normalQuantile,
  normalTwoSided,
  pairEffect,
  pooledZ,
  raoScott,
  type Correction,
  type GroupShare,
  type Interval,
  type Share,
} from '../statistics/index.js';

export interface CompareOptions {
  correction: Correction;
  level?: number;
  isWeighted?: boolean;
}

/** A cell as what a test takes. */
export const asGroupShare = (cell: {
  people: number;
  weighted: number;
  squares: number;
  base: { people: number; weighted: number; squares: number };
}): GroupShare => ({
  people: cell.base.people,
  weighted: cell.base.weighted,
  squares: cell.base.squares,
  mentioning: cell.people,
  mentioningWeighted: cell.weighted,
  mentioningSquares: cell.squares,
});

const shareOf = ({ weighted, mentioningWeighted }: GroupShare) => mentioningWeighted / weighted;

/** Kish's effective base of weighted people. */
const sizeOf = ({ weighted, squares }: GroupShare) =>
  squares > 0 ? (weighted * weighted) / squares : 0;

/** A difference of two groups that have nobody in common, with its interval and test. */
export interface GroupDifference {
  value: number;
  interval: Interval;
  test: 'z' | 'fisher' | 'rao_scott';
  /** z, or the F of Rao and Scott; null for the exact test, and where there is no test. */
  statistic: number | null;
  /** Degrees of freedom of an F: two of them; none otherwise. */
  degrees: number[];
  p: number;
}

/**
 * Compares two groups that have nobody in common: pooled z, or Fisher's exact test on small counts; weighted, the
 * Rao–Scott corrected test. The interval is Newcombe's, on effective bases when weighted.
 *
 * @see Newcombe (1998); Rao & Scott (1984)
 */
export function compareGroups(
  one: GroupShare,
  other: GroupShare,
  { isWeighted = false, level }: { isWeighted?: boolean; level?: number } = {},
): GroupDifference {
  const sides = [one, other].map((side) => ({
    share: shareOf(side),
    n: isWeighted ? sizeOf(side) : side.people,
  }));
  return {
    value: sides[0]!.share - sides[1]!.share,
    interval: newcombeInterval(sides[0]!, sides[1]!, level),
    ...(isWeighted
      ? weightedTest(one, other)
      : { ...compareShares(sides[0]!, sides[1]!), degrees: [] }),
  };
}

function weightedTest(
  one: GroupShare,
  other: GroupShare,
): Pick<GroupDifference, 'test' | 'statistic' | 'degrees' | 'p'> {
  const found = raoScott([one, other]);
  return {
    test: 'rao_scott',
    statistic: found?.value ?? null,
    degrees: found?.degrees ?? [],
    p: found?.p ?? 1,
  };
}

/**
 * Compares every pair of columns of one row, as survey tables do: a cell exceeds those columns whose share is lower
 * beyond chance. The pairs of the row are the family that is corrected for. (Letters for columns: common practice, no
 * source.)
 *
 * @param cells groups; null for one that is not compared
 * @param mayCompare whether two of them have nobody in common and are to be compared
 * @returns for each cell the places of the columns that it exceeds
 */
export function exceededColumns(
  cells: readonly (GroupShare | null)[],
  { correction, level = 0.95, isWeighted = false }: CompareOptions,
  mayCompare: (one: number, other: number) => boolean = () => true,
): number[][] {
  const critical = normalQuantile(0.5 + level / 2);
  const shares = cells.map((cell) => cell && { share: shareOf(cell), n: cell.people });
  return exceededPairs(shares, { correction, level }, mayCompare, (i, j) =>
    isWeighted
      ? weightedChance(cells[i]!, cells[j]!, critical)
      : chanceOf(shares[i]!, shares[j]!, critical),
  );
}

/** The places of the lower shares that each exceeds beyond chance, of all pairs that may be compared. */
function exceededPairs(
  shares: readonly (Share | null)[],
  { correction, level }: { correction: Correction; level: number },
  mayCompare: (one: number, other: number) => boolean,
  chance: (one: number, other: number) => number,
): number[][] {
  // columns of arrays: a table has thousands of pairs
  const higher: number[] = [];
  const lower: number[] = [];
  const chances: number[] = [];
  shares.forEach((one, i) => {
    for (let j = i + 1; j < shares.length; j++) {
      const other = shares[j];
      if (!one || !other || !mayCompare(i, j)) continue;
      const isHigher = one.share >= other.share;
      higher.push(isHigher ? i : j);
      lower.push(isHigher ? j : i);
      chances.push(chance(i, j));
    }
  });
  const adjusted = adjust(chances, correction);
  const exceeded = Array.from({ length: shares.length }, (): number[] => []);
  adjusted.forEach((p, k) => {
    if (p < 1 - level) exceeded[higher[k]!]!.push(lower[k]!);
  });
  return exceeded.map((places) => places.sort((x, y) => x - y));
}

/**
 * Compares two estimated shares of groups that have nobody in common, as what they rest on can bear: the pooled z test
 * at the effective sizes of the two estimates, and Newcombe's interval at the same. Where an expected count at these
 * sizes is below 5 there is no test: p is 1.
 *
 * @param one share, and the size of a simple random sample that would be as exact
 */
export function compareEstimates(one: Share, other: Share, level?: number): GroupDifference {
  const sides = [one, other].map(({ share, n }) => ({ share, n: Math.min(n, MOST_EFFECTIVE) }));
  const z = pooledZ(sides[0]!, sides[1]!);
  return {
    value: one.share - other.share,
    interval: newcombeInterval(sides[0]!, sides[1]!, level),
    test: 'z',
    statistic: z,
    degrees: [],
    p: z === null ? 1 : normalTwoSided(z),
  };
}

/** Effective size of what is known exactly. */
const MOST_EFFECTIVE = 1e9;

/**
 * Compares every pair of estimated columns of one row; the pairs of the row are the family that is corrected for.
 *
 * @returns for each cell the places of the columns that it exceeds
 */
export function exceededEstimates(
  cells: readonly (Share | null)[],
  { correction, level = 0.95 }: CompareOptions,
  mayCompare: (one: number, other: number) => boolean = () => true,
): number[][] {
  return exceededPairs(
    cells,
    { correction, level },
    mayCompare,
    (i, j) => compareEstimates(cells[i]!, cells[j]!, level).p,
  );
}

/**
 * The probability of such a difference by chance; 1 where the difference is not beyond chance even by itself, which no
 * correction for many tests changes, so that most of the tails of a large table need not be computed.
 *
 * @param critical how many standard errors a difference must be off to be beyond chance by itself
 */
function chanceOf(one: Share, other: Share, critical: number): number {
  const z = pooledZ(one, other);
  return z !== null && Math.abs(z) < critical ? 1 : compareShares(one, other).p;
}

/** The same for groups of people with weights. */
function weightedChance(one: GroupShare, other: GroupShare, critical: number): number {
  const effect = pairEffect(one, other);
  if (!effect) return raoScott([one, other])?.p ?? 1;
  // the tails of F are no lighter than those of the normal
  return effect.value < critical * critical ? 1 : fTail(effect.value, 1, effect.others);
}

/** How a column's share stands to that of everyone else. */
export type AgainstRest = 'higher' | 'lower' | null;

/**
 * Compares each column of one row with everyone else, whether or not columns have people in common. The columns of the
 * row are the family that is corrected for.
 *
 * @param cells groups; null for one that is not compared
 * @param everybody all who are counted in the row, each group among them
 */
export function compareWithRest(
  cells: readonly (GroupShare | null)[],
  everybody: GroupShare,
  { correction, level = 0.95, isWeighted = false }: CompareOptions,
): AgainstRest[] {
  const critical = normalQuantile(0.5 + level / 2);
  const tests = cells.map((cell) => {
    const rest = cell && without(everybody, cell);
    if (!rest || rest.people === 0 || rest.weighted <= 0) return null;
    return {
      isHigher: shareOf(cell) >= shareOf(rest),
      p: isWeighted
        ? weightedChance(cell, rest, critical)
        : chanceOf(
            { share: shareOf(cell), n: cell.people },
            { share: shareOf(rest), n: rest.people },
            critical,
          ),
    };
  });
  const adjusted = adjust(
    tests.flatMap((test) => (test ? [test.p] : [])),
    correction,
  );
  let place = 0;
  return tests.map((test) => {
    if (!test) return null;
    const p = adjusted[place]!;
    place += 1;
    if (p >= 1 - level) return null;
    return test.isHigher ? 'higher' : 'lower';
  });
}

/** One comparison of a row with all its figures: of two columns, or of a column with everyone else. */
export interface ListedTest extends GroupDifference {
  /** Places of the columns; null for everyone else. */
  one: number;
  other: number | null;
  /** p, corrected for all comparisons of the row. */
  corrected: number;
}

/**
 * Every comparison of a row, with the figures behind the letters of `exceededColumns` and the marks of
 * `compareWithRest`.
 *
 * @param everybody all who are counted in the row, to compare each column with everyone else; null to compare columns
 */
export function listTests(
  cells: readonly (GroupShare | null)[],
  everybody: GroupShare | null,
  { correction, level = 0.95, isWeighted = false }: CompareOptions,
  mayCompare: (one: number, other: number) => boolean = () => true,
): ListedTest[] {
  const tests = cells.flatMap((cell, one): Omit<ListedTest, 'corrected'>[] => {
    if (!cell) return [];
    if (everybody) {
      const rest = without(everybody, cell);
      if (rest.people === 0 || rest.weighted <= 0) return [];
      return [{ one, other: null, ...compareGroups(cell, rest, { isWeighted, level }) }];
    }
    return cells.flatMap((group, other) =>
      group && other > one && mayCompare(one, other)
        ? [{ one, other, ...compareGroups(cell, group, { isWeighted, level }) }]
        : [],
    );
  });
  return corrected(tests, correction);
}

/** Every comparison of two estimated columns of a row, as `exceededEstimates` makes them. */
export function listEstimateTests(
  cells: readonly (Share | null)[],
  { correction, level = 0.95 }: CompareOptions,
  mayCompare: (one: number, other: number) => boolean = () => true,
): ListedTest[] {
  const tests = cells.flatMap((cell, one) =>
    cells.flatMap((share, other) =>
      cell && share && other > one && mayCompare(one, other)
        ? [{ one, other, ...compareEstimates(cell, share, level) }]
        : [],
    ),
  );
  return corrected(tests, correction);
}

function corrected(
  tests: readonly Omit<ListedTest, 'corrected'>[],
  correction: Correction,
): ListedTest[] {
  const adjusted = adjust(
    tests.map(({ p }) => p),
    correction,
  );
  return tests.map((test, k) => ({ ...test, corrected: adjusted[k]! }));
}

const without = (all: GroupShare, part: GroupShare): GroupShare => ({
  people: all.people - part.people,
  mentioning: all.mentioning - part.mentioning,
  weighted: all.weighted - part.weighted,
  squares: all.squares - part.squares,
  mentioningWeighted: all.mentioningWeighted - part.mentioningWeighted,
  mentioningSquares: all.mentioningSquares - part.mentioningSquares,
});
