import type { SparseRows } from './features.js';

/** The least that the intercept is held by, which keeps the step solvable where all labels are alike. */
export const holdOfIntercept = 1e-10;

/** Columns that nearly all rows fill, such as those of word vectors, and the intercept, with what the rows hold of them. */
export interface CommonColumns {
  columns: Int32Array;
  /** Row by row. */
  values: Float64Array;
}

const mostCommon = 200;

export function commonColumns(x: SparseRows, rows: Int32Array): CommonColumns {
  const { start, column, value } = x;
  const filled = new Int32Array(x.columns);
  for (const row of rows)
    for (let k = start[row]!; k < start[row + 1]!; k++) filled[column[k]!]! += 1;
  const common: number[] = [];
  for (let j = 0; j < x.columns && common.length < mostCommon; j++)
    if (filled[j]! > 0.9 * rows.length) common.push(j);
  const columns = Int32Array.of(...common, x.columns);
  const n = columns.length;
  const placeOf = new Int32Array(x.columns).fill(-1);
  common.forEach((j, place) => (placeOf[j] = place));
  const values = new Float64Array(rows.length * n);
  rows.forEach((row, i) => {
    for (let k = start[row]!; k < start[row + 1]!; k++) {
      const place = placeOf[column[k]!]!;
      if (place >= 0) values[i * n + place] = value[k]!;
    }
    values[i * n + n - 1] = 1;
  });
  return { columns, values };
}

/** Divides nearly by the second derivatives. */
export type Condition = (vector: Float64Array) => Float64Array;

/**
 * Makes the function that divides by the second derivatives H of a logistic model where that is easy: among the common
 * columns exactly, by H's diagonal elsewhere. The common columns move together (the mean of word vectors hardly
 * differs from the intercept), so that by the diagonal alone several times as many rounds are needed.
 *
 * @see Nocedal & Wright (2006) Numerical Optimization, § 5.1
 */
export function preconditioner(
  x: SparseRows,
  rows: Int32Array,
  curvature: Float64Array,
  common: CommonColumns,
  c: number,
): Condition {
  const { start, column, value } = x;
  const { columns, values } = common;
  const n = columns.length;
  const diagonal = new Float64Array(x.columns + 1).fill(1 / c);
  diagonal[x.columns] = holdOfIntercept;
  const block = new Float64Array(n * n);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const factor = curvature[i]!;
    for (let k = start[row]!; k < start[row + 1]!; k++)
      diagonal[column[k]!]! += factor * value[k]! * value[k]!;
    const its = values.subarray(i * n, (i + 1) * n);
    for (let p = 0; p < n; p++) {
      const weighted = factor * its[p]!;
      const at = p * n;
      for (let q = 0; q <= p; q++) block[at + q]! += weighted * its[q]!;
    }
  }
  for (let p = 0; p < n; p++) block[p * n + p]! += p < n - 1 ? 1 / c : holdOfIntercept;
  const factored = cholesky(block, n);
  return (vector) => {
    const divided = new Float64Array(vector.length);
    for (let j = 0; j < vector.length; j++) divided[j] = vector[j]! / diagonal[j]!;
    const part = solveCholesky(
      factored,
      Float64Array.from(columns, (j) => vector[j]!),
    );
    columns.forEach((j, place) => (divided[j] = part[place]!));
    return divided;
  };
}

/** The lower triangle L of a symmetric positive definite matrix L·Lᵀ, of which the lower triangle is given. */
function cholesky(matrix: Float64Array, n: number): Float64Array {
  const lower = Float64Array.from(matrix);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = lower[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= lower[i * n + k]! * lower[j * n + k]!;
      lower[i * n + j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / lower[j * n + j]!;
    }
  return lower;
}

function solveCholesky(lower: Float64Array, right: Float64Array): Float64Array {
  const n = right.length;
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) right[i]! -= lower[i * n + k]! * right[k]!;
    right[i]! /= lower[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) right[i]! -= lower[k * n + i]! * right[k]!;
    right[i]! /= lower[i * n + i]!;
  }
  return right;
}
