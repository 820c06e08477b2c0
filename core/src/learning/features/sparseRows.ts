/** Rows of sparse numbers in compressed form: row r of `count` holds entries start[r] … start[r + 1] − 1. */
export interface CompressedRows {
  count: number;
  start: Int32Array;
  column: Int32Array;
  value: Float64Array;
}

/** A matrix in compressed sparse rows, columns in ascending order. */
export interface SparseRows extends CompressedRows {
  columns: number;
  /** Number of leading columns that nearly all rows fill: those of embeddings and sentence vectors. */
  common: number;
  /** The same matrix in factors, where known. */
  factors?: Factors;
}

/**
 * A matrix of texts as the product of two with fewer entries: texts × words, and words × columns. In the first, columns
 * from `columns` on stand for the words.
 */
export interface Factors {
  rows: CompressedRows;
  /** In each row, entries of the common columns come first and end before this entry. */
  commonStop: Int32Array;
  /** Number of leading wholes that fill each of the first `size` columns and nothing else. */
  common: number;
  size: number;
  wholes: CompressedRows;
}
