import type { SparseRows } from './sparseRows.js';

/** A linear model: score = Σ weight · value + intercept. */
export interface LinearModel {
  weights: Float64Array;
  intercept: number;
}

/** Scores of the rows. */
export function scoreRows(x: SparseRows, rows: Int32Array, model: LinearModel): Float64Array {
  const { start, column, value } = x;
  const { weights, intercept } = model;
  const scores = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const end = start[row + 1]!;
    let sum = intercept;
    for (let k = start[row]!; k < end; k++) sum += value[k]! * weights[column[k]!]!;
    scores[i] = sum;
  }
  return scores;
}

export const sigmoid = (f: number): number =>
  f >= 0 ? 1 / (1 + Math.exp(-f)) : Math.exp(f) / (1 + Math.exp(f));
