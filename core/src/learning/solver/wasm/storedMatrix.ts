import {
  VECTOR_BYTES,
  simdMemory,
  type SimdMemory,
  type ProductKernel,
  type ProductKernels,
  type SimdPrecision,
} from './simdMemory.js';
import { listAllRows, allocateRows, storeRows, type StoredRows } from './storedRows.js';
import { newFloats, newInts } from '../vectors.js';
import type { Factors, SparseRows } from '../../features/sparseRows.js';

/** A matrix X in memory, with products by interleaved vectors. */
export interface StoredMatrix {
  memory: SimdMemory;
  /** Address of interleaved vectors over columns. */
  byColumn: number;
  f64: SideBySide;
  rough: SideBySide;
}

/** Products with interleaved vectors of one precision. */
export interface SideBySide {
  lanes: number;
  /** A view of interleaved vectors at an address. No longer valid after an allocation. */
  vectors: (place: number, length: number) => Float64Array | Float32Array;
  /** Xᵀ times vectors over the listed rows, for all columns or the common ones. */
  fromRows: (rows: ListedRows, byRow: number, isCommon: boolean) => void;
  /** X times vectors over columns, or over the common ones, for the listed rows. */
  toRows: (rows: ListedRows, byRow: number, isCommon: boolean) => void;
}

/** A list of rows in memory. */
export interface ListedRows {
  place: number;
  length: number;
}

export function storeMatrix(x: SparseRows): StoredMatrix {
  const { rows, commonStop, wholes, common, size: ofWhole } = x.factors ?? asOneFactor(x);
  const memory = simdMemory();
  const commonStops = memory.allocate(4 * rows.count);
  const everyWhole = listAllRows(memory, wholes.count);
  const byColumn = memory.allocate(VECTOR_BYTES * (x.columns + wholes.count));
  const byWhole = byColumn + VECTOR_BYTES * x.columns;
  memory.ints(commonStops, rows.count).set(commonStop);

  const sideBySide = (size: SimdPrecision): SideBySide => {
    const { lanes, numbers, times, transposeTimes, dense } = size;
    const [ofRows, ofWholes] = [rows, wholes].map((those) => {
      const stored = allocateRows(memory, those.count, those.column.length, size);
      storeRows(memory, stored, those, size);
      return stored;
    }) as [StoredRows, StoredRows];
    const vectors: SideBySide['vectors'] = (place, length) => numbers(place, lanes * length);
    const withRows = (
      multiply: ProductKernel,
      isCommon: boolean,
      list: ListedRows,
      by: Vectors,
    ) => {
      const { start, offset, value } = ofRows;
      const stop = isCommon ? commonStops : start + 4;
      multiply(list.place, list.length, start, stop, offset, value, ...by);
    };
    const inPairs = dense ? common - (common % 2) : 0;
    const withWholes = (product: keyof ProductKernels, isCommon: boolean, by: Vectors) => {
      const { start, offset, value } = ofWholes;
      if (inPairs > 0) dense![product](inPairs, ofWhole, value, ...by);
      const list = everyWhole + 4 * inPairs;
      const count = (isCommon ? common : wholes.count) - inPairs;
      size[product](list, count, start, start + 4, offset, value, ...by);
    };
    return {
      lanes,
      vectors,
      fromRows(list, byRow, isCommon) {
        vectors(byColumn, isCommon ? x.common : x.columns).fill(0);
        vectors(byWhole, isCommon ? common : wholes.count).fill(0);
        withRows(transposeTimes, isCommon, list, [byRow, byColumn]);
        withWholes('transposeTimes', isCommon, [byWhole, byColumn]);
      },
      toRows(list, byRow, isCommon) {
        withWholes('times', isCommon, [byColumn, byWhole]);
        withRows(times, isCommon, list, [byColumn, byRow]);
      },
    };
  };
  const { f64, f32 } = memory;
  return { memory, byColumn, f64: sideBySide(f64), rough: sideBySide(f32) };
}

/** Addresses of the vectors that are multiplied, and of the products. */
type Vectors = [from: number, into: number];

/** A matrix that is not factored. */
function asOneFactor({ count, start, column, value, common }: SparseRows): Factors {
  const commonStop = start.slice(0, count);
  for (let row = 0; row < count; row++)
    while (commonStop[row]! < start[row + 1]! && column[commonStop[row]!]! < common)
      commonStop[row]! += 1;
  return {
    rows: { count, start, column, value },
    commonStop,
    common: 0,
    size: 0,
    wholes: { count: 0, start: newInts(1), column: newInts(0), value: newFloats(0) },
  };
}
