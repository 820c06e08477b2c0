import type { LinearModel } from '../src/learning/solver/linearModel.js';
import type { SparseRows } from '../src/learning/features/sparseRows.js';

/** Scores of the rows listed, number by number. */
export const scoreRows = (
  { start, column, value }: SparseRows,
  rows: Int32Array,
  { weights, intercept }: LinearModel,
): Float64Array =>
  Float64Array.from(rows, (row) => {
    let sum = intercept;
    for (let k = start[row]!; k < start[row + 1]!; k++) sum += value[k]! * weights[column[k]!]!;
    return sum;
  });
