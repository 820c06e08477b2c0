import type { SparseRows } from './sparseRows.js';

/** A linear model: score = Σ weight · value + intercept. */
export interface LinearModel {
  weights: Float64Array;
  intercept: number;
}

/** Scores of the rows. */
export function scoreRows(x: SparseRows, rows: Int32Array, model: LinearModel): Float64Array {
  const scores = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i++) scores[i] = scoreRow(x, rows[i]!, model);
  return scores;
}

/** Score of a row. */
export function scoreRow(
  { start, column, value }: SparseRows,
  row: number,
  { weights, intercept }: LinearModel,
): number {
  const end = start[row + 1]!;
  let sum = intercept;
  for (let k = start[row]!; k < end; k++) sum += value[k]! * weights[column[k]!]!;
  return sum;
}

export const sigmoid = (f: number): number =>
  f >= 0 ? 1 / (1 + Math.exp(-f)) : Math.exp(f) / (1 + Math.exp(f));
