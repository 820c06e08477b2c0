import { scoreRow, type LinearModel } from '../src/learning/linearModel.js';
import type { SparseRows } from '../src/learning/sparseRows.js';

/** Scores of the rows. */
export const scoreRows = (x: SparseRows, rows: Int32Array, model: LinearModel): Float64Array =>
  Float64Array.from(rows, (row) => scoreRow(x, row, model));
