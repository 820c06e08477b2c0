/** Rows of sparse numbers in compressed form: row r of `count` holds entries start[r] … start[r + 1] − 1. */
export interface CompressedRows {
  count: number;
  start: Int32Array;
  column: Int32Array;
  value: Float64Array;
}

/** What is learnt from: rows of sparse numbers in compressed form, columns in ascending order. */
export interface SparseRows extends CompressedRows {
  columns: number;
  /** Number of leading columns that nearly all rows fill: those of the embeddings. */
  common: number;
  /** The same matrix as a product, where it is known. */
  factors?: Factors;
}

/**
 * A matrix of texts as the product of two that have fewer numbers: what the texts bring of whole words, and what these
 * are. Numbers from `columns` of the matrix on stand for the wholes.
 */
export interface Factors {
  rows: CompressedRows;
  /** What fills the common columns comes first in each row, and ends before this entry. */
  commonStop: Int32Array;
  /** Number of leading wholes that fill each of the common columns and nothing else. */
  common: number;
  wholes: CompressedRows;
}
