import { VECTOR_BYTES, F64_LANES } from './simdMemory.js';
import { listAllRows } from './storedRows.js';
import type { SparseRows } from '../../features/sparseRows.js';
import type { StoredMatrix } from './storedMatrix.js';

/**
 * Products with a matrix X:
 * - `kernel`: X·Xᵀ·v, rows to rows
 * - `model`: Xᵀ·v, rows to columns, followed by X·Xᵀ·v of all rows
 * - `toCommon`, `fromCommon`: Xᵀ·v for the common columns alone, and X·v from these to rows
 */
export type Product = 'kernel' | 'model' | 'toCommon' | 'fromCommon';

/**
 * A vector, the rows of the matrix that it belongs to, and the array for the product; vectors over rows have one number a
 * listed row.
 */
export interface ProductOperand {
  vector: Float64Array;
  rows: Int32Array;
  into: Float64Array;
}

/** Makes the function that multiplies a matrix by up to F64_LANES vectors; each result is the same to the last bit whatever the others are. */
export function matrixProducts(
  { count, columns, common }: SparseRows,
  { memory, byColumn, f64 }: StoredMatrix,
): (product: Product, asked: readonly ProductOperand[]) => void {
  const list = memory.allocate(4 * count);
  const everyRow = { place: listAllRows(memory, count), length: count };
  const byRow = memory.allocate(VECTOR_BYTES * count);
  let listedFor: Int32Array[] = [];
  let length = 0;
  const listRows = (asked: readonly ProductOperand[]) => {
    const lists = asked.map(({ rows }) => rows);
    if (lists.length === listedFor.length && lists.every((rows, i) => rows === listedFor[i]))
      return;
    const wanted = new Uint8Array(count);
    for (const rows of lists) for (let i = 0; i < rows.length; i++) wanted[rows[i]!] = 1;
    const listed = memory.ints(list, count);
    length = 0;
    for (let row = 0; row < count; row++) if (wanted[row] === 1) listed[length++] = row;
    listedFor = lists;
  };
  const fromRows = (asked: readonly ProductOperand[], isCommon: boolean) => {
    const lanes = f64.vectors(byRow, count);
    lanes.fill(0);
    asked.forEach(({ vector, rows }, lane) => {
      for (let i = 0; i < rows.length; i++) lanes[rows[i]! * F64_LANES + lane] = vector[i]!;
    });
    f64.fromRows({ place: list, length }, byRow, isCommon);
  };
  const toRows = (asked: readonly ProductOperand[], isCommon: boolean) => {
    f64.toRows({ place: list, length }, byRow, isCommon);
    const lanes = f64.vectors(byRow, count);
    asked.forEach(({ rows, into }, lane) => {
      for (let i = 0; i < rows.length; i++) into[i] = lanes[rows[i]! * F64_LANES + lane]!;
    });
  };
  const copyColumns = (asked: readonly ProductOperand[], columns: number) => {
    const lanes = f64.vectors(byColumn, columns);
    asked.forEach(({ into }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += F64_LANES) into[j] = lanes[at]!;
    });
  };
  return (product, asked) => {
    listRows(asked);
    switch (product) {
      case 'kernel':
        fromRows(asked, false);
        toRows(asked, false);
        break;
      case 'model': {
        fromRows(asked, false);
        copyColumns(asked, columns);
        f64.toRows(everyRow, byRow, false);
        const lanes = f64.vectors(byRow, count);
        asked.forEach(({ into }, lane) => {
          for (let row = 0; row < count; row++)
            into[columns + row] = lanes[row * F64_LANES + lane]!;
        });
        break;
      }
      case 'toCommon':
        fromRows(asked, true);
        copyColumns(asked, common);
        break;
      case 'fromCommon': {
        const lanes = f64.vectors(byColumn, common);
        asked.forEach(({ vector }, lane) => {
          for (let j = 0, at = lane; j < common; j++, at += F64_LANES) lanes[at] = vector[j]!;
        });
        toRows(asked, true);
      }
    }
  };
}
