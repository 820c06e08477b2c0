import type { SparseRows } from './sparseRows.js';
import { laneMemory } from './laneMemory.js';

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
  /** The lower triangle L of G = L·Lᵀ, row after row: rounded, which divides nearly as well and is fetched sooner. */
  factored: Float32Array;
}

/** @param root S of each of the rows listed */
export function preconditioner(x: SparseRows, rows: Int32Array, root: Float64Array): Condition {
  const { count, start, column, value, common } = x;
  const byRow = { root: new Float64Array(count), diagonal: new Float64Array(count).fill(1) };
  let block = blocks.get(x);
  if (!block) blocks.set(x, (block = outerSum(common)));
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const square = root[i]! * root[i]!;
    const at = block.next();
    let rest = 0;
    for (let k = start[row]!; k < start[row + 1]!; k++) {
      if (column[k]! < common) block.vectors[at + column[k]!] = value[k]!;
      else rest += value[k]! * value[k]!;
    }
    const diagonal = 1 + square * rest;
    byRow.root[row] = root[i]!;
    byRow.diagonal[row] = diagonal;
    block.weigh(square / diagonal);
  }
  const matrix = block.end();
  for (let p = 0; p < common; p++) matrix[p * common + p]! += 1;
  return { ...byRow, factored: cholesky(matrix, common) };
}

/** So many vectors are added up at once, in numbers of 32 bits, and their sum to the others' in numbers of 64. */
const AT_ONCE = 32;

/** By matrix: a memory of its own for every block would cost more than what is worked out in it. */
const blocks = new WeakMap<SparseRows, ReturnType<typeof outerSum>>();

/** Σ weight · vector · vectorᵀ of vectors of so many numbers. */
function outerSum(size: number) {
  const width = Math.ceil(size / 16) * 16;
  const memory = laneMemory();
  const right = memory.room(4 * AT_ONCE * width);
  const left = memory.room(4 * AT_ONCE * width);
  const into = memory.room(8 * width * width);
  const vectors = memory.roughFloats(right, AT_ONCE * width);
  const weighted = memory.roughFloats(left, AT_ONCE * width);
  let waiting = 0;
  const add = () => {
    memory.run.addOuter(left, right, waiting, width, size, into);
    waiting = 0;
    vectors.fill(0);
  };
  return {
    vectors,
    /** Where the numbers of the next vector belong, which are all 0 so far. */
    next: () => waiting * width,
    /** Says that they are there. */
    weigh(weight: number): void {
      const at = waiting * width;
      for (let p = 0; p < size; p++) weighted[at + p] = weight * vectors[at + p]!;
      waiting += 1;
      if (waiting === AT_ONCE) add();
    },
    /** The lower triangle of the sum, in a matrix of size × size. The next sum begins at nothing. */
    end(): Float64Array {
      add();
      const sum = memory.floats(into, width * width);
      const lower = new Float64Array(size * size);
      for (let p = 0; p < size; p++)
        lower.set(sum.subarray(p * width, p * width + p + 1), p * size);
      sum.fill(0);
      return lower;
    },
  };
}

/** The lower triangle L of a symmetric positive definite matrix L·Lᵀ, of which the lower triangle is given. */
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

/** Solves L·Lᵀ·x = right in the place of `right`; L is given row after row. */
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
