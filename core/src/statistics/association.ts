import { fTail } from './fTail.js';
import { chiSquareTail } from './tails.js';

/** One group of a table of "mentions it" by groups: people and their weights, in all and of those who mention it. */
export interface GroupShare {
  people: number;
  mentioning: number;
  /** Sums of weights, and of their squares; as many as people where nobody is weighted. */
  weighted: number;
  squares: number;
  mentioningWeighted: number;
  mentioningSquares: number;
}

/**
 * Whether there is too little for a chi-square: an expected count below 1, or more than a fifth of them below 5
 * (common practice, which names Cochran 1954).
 */
export function isTooThin(groups: readonly GroupShare[]): boolean {
  const filled = groups.filter(({ people }) => people > 0);
  const total = sumOf(filled, ({ people }) => people);
  const share = sumOf(filled, ({ mentioning }) => mentioning) / total;
  const expected = filled.flatMap(({ people }) => [people * share, people * (1 - share)]);
  return (
    expected.some((count) => count < 1) ||
    expected.filter((count) => count < 5).length > expected.length / 5
  );
}

/** Whether a share differs between groups that have nobody in common. */
export interface Association {
  test: 'chi_square' | 'rao_scott';
  value: number;
  /** Degrees of freedom; two of them for an F. */
  degrees: number[];
  p: number;
  /** Cramér's V: 0 for none, 1 for complete. */
  strength: number;
  /** For each group how far its mentions are off what is expected, in standard errors. */
  residuals: number[];
}

/**
 * Pearson's chi-square of a share in two or more groups, with adjusted residuals and Cramér's V.
 *
 * @returns null where nobody or everybody mentions it, or fewer than two groups have people
 * @see Agresti (2007) An introduction to categorical data analysis; Haberman (1973); Cramér (1946)
 */
export function chiSquare(groups: readonly GroupShare[]): Association | null {
  const total = sumOf(groups, ({ people }) => people);
  const mentioning = sumOf(groups, (group) => group.mentioning);
  const filled = groups.filter(({ people }) => people > 0).length;
  if (filled < 2 || mentioning === 0 || mentioning === total) return null;
  const share = mentioning / total;
  let value = 0;
  const residuals = groups.map((group) => {
    if (group.people === 0) return 0;
    const expected = group.people * share;
    const off = group.mentioning - expected;
    value += (off * off) / expected + (off * off) / (group.people - expected);
    return off / Math.sqrt(expected * (1 - share) * (1 - group.people / total));
  });
  const degrees = filled - 1;
  return {
    test: 'chi_square',
    value,
    degrees: [degrees],
    p: chiSquareTail(value, degrees),
    strength: Math.sqrt(value / total),
    residuals,
  };
}

/** A table of which the design effects add up to less has no variance but that of rounding. */
const LEAST_TRACE = 1e-9;
const allSquaresOf = (groups: readonly GroupShare[]) => sumOf(groups, ({ squares }) => squares);

/**
 * The same for weighted people: Pearson's chi-square of the weighted table, corrected for the design by the second-order
 * Rao–Scott correction, with weights alone as the design. Squares of weights are all that it takes.
 *
 * Where every group mentions it as a whole or not at all, the table has no variance to correct by: the design effect is
 * then Kish's, for all weights alike (first order).
 *
 * @returns null where nobody or everybody mentions it, or fewer than two groups have people
 * @see Rao & Scott (1984) On chi-squared tests for multiway contingency tables with cell proportions estimated from
 *   survey data; as R survey's svychisq(statistic = "F")
 */
export function raoScott(all: readonly GroupShare[]): Association | null {
  const groups = all.filter(({ weighted }) => weighted > 0);
  const k = groups.length;
  const n = sumOf(groups, ({ people }) => people);
  const total = sumOf(groups, ({ weighted }) => weighted);
  const mentioning = sumOf(groups, (group) => group.mentioningWeighted);
  if (k < 2 || mentioning <= 0 || mentioning >= total) return null;
  const share = mentioning / total;
  // cells: those who mention it by group, then those who do not
  const cells = [
    ...groups.map((group) => [group.mentioningWeighted, group.mentioningSquares] as const),
    ...groups.map(
      (group) =>
        [
          group.weighted - group.mentioningWeighted,
          group.squares - group.mentioningSquares,
        ] as const,
    ),
  ];
  const proportions = Float64Array.from(cells, ([weight]) => weight / total);
  const squares = Float64Array.from(cells, ([, square]) => square / (total * total));
  const allSquares = squares.reduce((sum, square) => sum + square, 0);
  let pearson = 0;
  const residuals = groups.map((group, g) => {
    const part = group.weighted / total;
    const off = proportions[g]! - part * share;
    pearson += (n * off * off) / (part * share * (1 - share));
    return (off * Math.sqrt(n)) / Math.sqrt(part * share * (1 - share) * (1 - part));
  });
  const size = k - 1;
  // contrasts of the interaction of mention and group, and divided by the cells' proportions: a list of cells each
  const contrasts = Array.from({ length: size }, (_, g) =>
    Float64Array.from(
      cells,
      (_, cell) => (cell < k ? 0.5 : -0.5) * ((cell % k === g ? 1 : 0) - 1 / k),
    ),
  );
  const divided = contrasts.map((contrast) =>
    contrast.map((value, cell) => (cells[cell]![0] > 0 ? value / proportions[cell]! : 0)),
  );
  const simple = matrix(size, (i, j) => productOf(contrasts[i]!, divided[j]!) / n);
  // the covariance of cells a and b is (a = b ? squares_a : 0) − p_b·squares_a − p_a·squares_b + p_a·p_b·Σ squares,
  // times n / (n − 1): summed over both, it parts into sums over one
  const bySquares = divided.map((one) => one.map((value, cell) => value * squares[cell]!));
  const ofSquares = bySquares.map((one) => one.reduce((sum, value) => sum + value, 0));
  const ofProportions = divided.map((one) => productOf(one, proportions));
  const design = matrix(
    size,
    (i, j) =>
      (productOf(bySquares[i]!, divided[j]!) -
        ofSquares[i]! * ofProportions[j]! -
        ofProportions[i]! * ofSquares[j]! +
        ofProportions[i]! * ofProportions[j]! * allSquares) *
      (n / (n - 1)),
  );
  const effects = solve(simple, design);
  const found = effects.reduce((sum, line, i) => sum + line[i]!, 0);
  const isSeparated = found < LEAST_TRACE;
  const trace = isSeparated ? (size * n * allSquaresOf(groups)) / (total * total) : found;
  const ofSquare = effects.reduce(
    (sum, line, i) => sum + line.reduce((inner, value, j) => inner + value * effects[j]![i]!, 0),
    0,
  );
  const value = pearson / trace;
  const degrees = isSeparated ? size : (trace * trace) / ofSquare;
  const others = degrees * (n - 1);
  let place = -1;
  return {
    test: 'rao_scott',
    value,
    degrees: [degrees, others],
    p: fTail(value, degrees, others),
    strength: Math.sqrt(pearson / n),
    residuals: all.map(({ weighted }) => (weighted > 0 ? residuals[(place += 1)]! : 0)),
  };
}

/**
 * Rao and Scott's F of two groups, which has 1 and `others` degrees of freedom: what `raoScott` comes to for a table of
 * two by two without an empty cell.
 *
 * @returns null where a cell is empty
 */
export function pairEffect(
  one: GroupShare,
  other: GroupShare,
): { value: number; others: number } | null {
  const n = one.people + other.people;
  const total = one.weighted + other.weighted;
  const mentioning = one.mentioningWeighted + other.mentioningWeighted;
  if (hasEmptyCell(one) || hasEmptyCell(other)) return null;
  const designed = squaresByShare(one) + squaresByShare(other);
  const simple = total * (inverseShares(one) + inverseShares(other));
  const share = mentioning / total;
  const part = one.weighted / total;
  const off = one.mentioningWeighted / total - part * share;
  const pearson = (n * off * off) / (part * (1 - part) * share * (1 - share));
  const effect = (designed * n) / (n - 1) / (simple / n);
  return { value: pearson / effect, others: n - 1 };
}

const hasEmptyCell = ({ weighted, mentioningWeighted }: GroupShare) =>
  mentioningWeighted <= 0 || weighted - mentioningWeighted <= 0;

/** s / p² of both cells of a group, with weights that sum to 1. */
function squaresByShare({ weighted, squares, mentioningWeighted, mentioningSquares }: GroupShare) {
  const rest = weighted - mentioningWeighted;
  return (
    mentioningSquares / (mentioningWeighted * mentioningWeighted) +
    (squares - mentioningSquares) / (rest * rest)
  );
}

/** 1 / p of both cells of a group. */
const inverseShares = ({ weighted, mentioningWeighted }: GroupShare) =>
  1 / mentioningWeighted + 1 / (weighted - mentioningWeighted);

const sumOf = <T>(list: readonly T[], of: (one: T) => number) =>
  list.reduce((sum, one) => sum + of(one), 0);

function productOf(x: Float64Array, y: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * y[i]!;
  return sum;
}

const matrix = (size: number, at: (i: number, j: number) => number) =>
  Array.from({ length: size }, (_, i) => Array.from({ length: size }, (__, j) => at(i, j)));

/** X with A X = B, by Gaussian elimination with partial pivoting. */
function solve(a: number[][], b: number[][]): number[][] {
  const left = a.map((line) => [...line]);
  const right = b.map((line) => [...line]);
  for (let column = 0; column < left.length; column++) {
    let pivot = column;
    for (let i = column; i < left.length; i++)
      if (Math.abs(left[i]![column]!) > Math.abs(left[pivot]![column]!)) pivot = i;
    [left[column], left[pivot]] = [left[pivot]!, left[column]!];
    [right[column], right[pivot]] = [right[pivot]!, right[column]!];
    for (let i = 0; i < left.length; i++) {
      if (i === column) continue;
      const factor = left[i]![column]! / left[column]![column]!;
      if (factor === 0) continue;
      left[i] = left[i]!.map((value, j) => value - factor * left[column]![j]!);
      right[i] = right[i]!.map((value, j) => value - factor * right[column]![j]!);
    }
  }
  return right.map((line, i) => line.map((value) => value / left[i]![i]!));
}
