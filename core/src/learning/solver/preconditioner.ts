import type { SparseRows } from '../features/sparseRows.js';
import { simdMemory } from './wasm/simdMemory.js';

/**
 * A preconditioner for I + S K S, with K = X Xᵀ: the inverse of D + S E Eᵀ S, with E the columns that nearly all rows fill
 * and D the diagonal of the rest, by Woodbury's identity with G = I + Eᵀ S D⁻¹ S E. Without the common columns several
 * times as many iterations are needed.
 *
 * @see Nocedal & Wright (2006) Numerical Optimization, § 5.1; Woodbury (1950) Inverting modified matrices
 */
export interface Preconditioner {
  /** S and D by row of the matrix. */
  root: Float64Array;
  diagonal: Float64Array;
  /** The Cholesky factor L of G, row after row, in 32 bits: about as good, and half the memory to fetch. */
  factored: Float32Array;
}

/** @param root S of each of the rows listed */
export function buildPreconditioner(
  x: SparseRows,
  rows: Int32Array,
  root: Float64Array,
): Preconditioner {
  let kept = partsOf.get(x);
  if (!kept) partsOf.set(x, (kept = prepareParts(x)));
  const { rest, outerSum } = kept;
  const byRow = { root: new Float64Array(x.count), diagonal: new Float64Array(x.count).fill(1) };
  const weights = new Float64Array(x.count);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const square = root[i]! * root[i]!;
    byRow.root[row] = root[i]!;
    byRow.diagonal[row] = 1 + square * rest[row]!;
    weights[row] = square / byRow.diagonal[row];
  }
  const matrix = outerSum(weights);
  for (let p = 0; p < x.common; p++) matrix[p * x.common + p]! += 1;
  return { ...byRow, factored: cholesky(matrix, x.common) };
}

/** Rows that are summed at once in 32 bits; their sums are added up in 64. */
const ROWS_AT_ONCE = 32;

/** What all preconditioners of a matrix need. */
interface PreconditionerParts {
  /** By row, the sum of squares outside the common columns. */
  rest: Float64Array;
  /** The lower triangle of Σ weight · row · rowᵀ of the common columns, by row of the matrix, in a square. */
  outerSum: (weights: Float64Array) => Float64Array;
}
const partsOf = new WeakMap<SparseRows, PreconditionerParts>();

function prepareParts({
  count,
  start,
  column,
  value,
  common: size,
}: SparseRows): PreconditionerParts {
  const width = Math.ceil(size / 16) * 16;
  const rows = Math.ceil(count / ROWS_AT_ONCE) * ROWS_AT_ONCE;
  const memory = simdMemory();
  const right = memory.allocate(4 * rows * width);
  const left = memory.allocate(4 * ROWS_AT_ONCE * width);
  const into = memory.allocate(8 * width * width);
  const vectors = memory.floats32(right, rows * width);
  const weighted = memory.floats32(left, ROWS_AT_ONCE * width);
  const sum = memory.floats(into, width * width);
  const rest = new Float64Array(count);
  for (let row = 0; row < count; row++)
    for (let k = start[row]!; k < start[row + 1]!; k++) {
      if (column[k]! < size) vectors[row * width + column[k]!] = value[k]!;
      else rest[row]! += value[k]! * value[k]!;
    }
  return {
    rest,
    outerSum(weights) {
      sum.fill(0);
      for (let row = 0; row < count; row += ROWS_AT_ONCE) {
        for (let i = 0; i < ROWS_AT_ONCE; i++)
          scale(weighted, i * width, vectors, (row + i) * width, size, weights[row + i] ?? 0);
        memory.run.addOuter(left, right + 4 * row * width, ROWS_AT_ONCE, width, size, into);
      }
      const lower = new Float64Array(size * size);
      for (let p = 0; p < size; p++)
        lower.set(sum.subarray(p * width, p * width + p + 1), p * size);
      return lower;
    },
  };
}

/** Multiplies `length` numbers by a weight. */
function scale(
  into: Float32Array,
  at: number,
  from: Float32Array,
  first: number,
  length: number,
  weight: number,
): void {
  for (let p = 0; p < length; p++) into[at + p] = weight * from[first + p]!;
}

/** Cholesky factor of a symmetric positive definite matrix of which the lower triangle is given. */
function cholesky(matrix: Float64Array, n: number): Float32Array {
  const lower = Float64Array.from(matrix);
  const packed = new Float32Array((n * (n + 1)) / 2);
  for (let i = 0, at = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = lower[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= lower[i * n + k]! * lower[j * n + k]!;
      lower[i * n + j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / lower[j * n + j]!;
      packed[at++] = lower[i * n + j]!;
    }
  return packed;
}

/** Solves L·Lᵀ·x = right in place; L is given row after row. */
export function solveCholesky(lower: Float32Array, right: Float64Array): Float64Array {
  const n = right.length;
  let at = 0;
  for (let i = 0; i < n; i++) {
    let sum = right[i]!;
    for (let k = 0; k < i; k++) sum -= lower[at++]! * right[k]!;
    right[i] = sum / lower[at++]!;
  }
  // row by row, as it lies in memory
  for (let k = n - 1; k >= 0; k--) {
    at -= k + 1;
    const value = right[k]! / lower[at + k]!;
    right[k] = value;
    for (let i = 0; i < k; i++) right[i]! -= lower[at + i]! * value;
  }
  return right;
}
