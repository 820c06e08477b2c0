import type { SparseRows } from './features.js';

/**
 * Divides nearly by I + S K S, with K the products of rows with each other: as if it were D + S E Eᵀ S, with E the
 * columns that nearly all rows fill and D the diagonal of the rest, by way of G = I + Eᵀ S D⁻¹ S E. The common columns
 * move together: without them several times as many rounds are needed.
 *
 * @see Nocedal & Wright (2006) Numerical Optimization, § 5.1; Woodbury (1950) Inverting modified matrices
 */
export interface Condition {
  /** S and D by row of the matrix. */
  root: Float64Array;
  diagonal: Float64Array;
  /** The lower triangle L of G = L·Lᵀ. */
  factored: Float64Array;
}

/** What is summed over rows is summed for so many at a time: each number of the sum is then fetched less often. */
const AT_ONCE = 4;

/** @param root S of each of the rows listed */
export function preconditioner(x: SparseRows, rows: Int32Array, root: Float64Array): Condition {
  const { start, column, value, common } = x;
  const count = start.length - 1;
  const n = common;
  const block = new Float64Array(n * n);
  const byRow = { root: new Float64Array(count), diagonal: new Float64Array(count).fill(1) };
  /** Rows as they are in E, several at a time, the last ones with nothing. */
  const panel = new Float64Array(AT_ONCE * n);
  const weights = new Float64Array(AT_ONCE);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const square = root[i]! * root[i]!;
    const at = (i % AT_ONCE) * n;
    if (i % AT_ONCE === 0) {
      panel.fill(0);
      weights.fill(0);
    }
    let rest = 0;
    for (let k = start[row]!; k < start[row + 1]!; k++) {
      if (column[k]! < common) panel[at + column[k]!] = value[k]!;
      else rest += value[k]! * value[k]!;
    }
    const diagonal = 1 + square * rest;
    byRow.root[row] = root[i]!;
    byRow.diagonal[row] = diagonal;
    weights[i % AT_ONCE] = square / diagonal;
    if (i % AT_ONCE === AT_ONCE - 1 || i === rows.length - 1) addOuter(block, panel, weights, n);
  }
  for (let p = 0; p < n; p++) block[p * n + p]! += 1;
  return { ...byRow, factored: cholesky(block, n) };
}

/** Adds Σ weight · vector · vectorᵀ of a panel of four to the lower triangle of an n × n matrix. */
function addOuter(
  matrix: Float64Array,
  panel: Float64Array,
  weights: Float64Array,
  n: number,
): void {
  const [one, two, three] = [n, 2 * n, 3 * n];
  for (let p = 0; p < n; p++) {
    const a = weights[0]! * panel[p]!;
    const b = weights[1]! * panel[one + p]!;
    const c = weights[2]! * panel[two + p]!;
    const d = weights[3]! * panel[three + p]!;
    const at = p * n;
    for (let q = 0; q <= p; q++)
      matrix[at + q]! +=
        a * panel[q]! + b * panel[one + q]! + c * panel[two + q]! + d * panel[three + q]!;
  }
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

/** Solves L·Lᵀ·x = right in the place of `right`. */
export function solveCholesky(lower: Float64Array, right: Float64Array): Float64Array {
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
