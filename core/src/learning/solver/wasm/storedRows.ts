import { VECTOR_BYTES, type SimdMemory, type SimdPrecision } from './simdMemory.js';
import type { CompressedRows } from '../../features/sparseRows.js';

/** Addresses of the rows of a sparse matrix. */
export interface StoredRows {
  start: number;
  offset: number;
  value: number;
}

/** Allocates the list 0, 1, … count − 1. */
export function listAllRows(memory: SimdMemory, count: number): number {
  const place = memory.allocate(4 * count);
  memory.ints(place, count).forEach((_, row, every) => (every[row] = row));
  return place;
}

export const allocateRows = (
  memory: SimdMemory,
  rows: number,
  entries: number,
  { bytes }: SimdPrecision,
): StoredRows => ({
  start: memory.allocate(4 * (rows + 1)),
  offset: memory.allocate(4 * entries),
  value: memory.allocate(bytes * entries),
});

/** Writes rows to where they were allocated. */
export function storeRows(
  memory: SimdMemory,
  stored: StoredRows,
  { count, start, column, value }: CompressedRows,
  size: SimdPrecision,
): void {
  const entries = start[count]!;
  memory.ints(stored.start, count + 1).set(start.subarray(0, count + 1));
  size.numbers(stored.value, entries).set(value.subarray(0, entries));
  const offset = memory.ints(stored.offset, entries);
  for (let k = 0; k < entries; k++) offset[k] = column[k]! * VECTOR_BYTES;
}
