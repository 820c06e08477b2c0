import { BYTES_OF_LANES, type LaneMemory, type LaneSize } from './laneMemory.js';
import type { CompressedRows } from './sparseRows.js';

/** Where rows of a sparse matrix lie in memory. */
export interface StoredRows {
  start: number;
  offset: number;
  value: number;
}

/** A list of all of so many rows, in memory. */
export function listEvery(memory: LaneMemory, count: number): number {
  const place = memory.room(4 * count);
  memory.ints(place, count).forEach((_, row, every) => (every[row] = row));
  return place;
}

export const roomForRows = (
  memory: LaneMemory,
  rows: number,
  entries: number,
  { bytes }: LaneSize,
): StoredRows => ({
  start: memory.room(4 * (rows + 1)),
  offset: memory.room(4 * entries),
  value: memory.room(bytes * entries),
});

/** Stores rows where there is room for them. */
export function storeRows(
  memory: LaneMemory,
  stored: StoredRows,
  { count, start, column, value }: CompressedRows,
  size: LaneSize,
): void {
  const entries = start[count]!;
  memory.ints(stored.start, count + 1).set(start.subarray(0, count + 1));
  size.numbers(stored.value, entries).set(value.subarray(0, entries));
  const offset = memory.ints(stored.offset, entries);
  for (let k = 0; k < entries; k++) offset[k] = column[k]! * BYTES_OF_LANES;
}
