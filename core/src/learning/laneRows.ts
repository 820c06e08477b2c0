import { BYTES_OF_LANES, type LaneMemory } from './laneMemory.js';

/** Where rows of a sparse matrix lie in memory. */
export interface StoredRows {
  start: number;
  offset: number;
  value: number;
}

export const roomForRows = (memory: LaneMemory, rows: number, entries: number): StoredRows => ({
  start: memory.room(4 * (rows + 1)),
  offset: memory.room(4 * entries),
  value: memory.room(8 * entries),
});

/** Makes the function that stores row after row. */
export function rowFiller(
  memory: LaneMemory,
  stored: StoredRows,
  columns: number,
  room: { rows: number; entries: number },
) {
  const start = memory.ints(stored.start, room.rows + 1);
  const offset = memory.ints(stored.offset, room.entries);
  const value = memory.floats(stored.value, room.entries);
  let [row, at] = [0, 0];
  start[0] = 0;
  return (column: Int32Array, values: Float64Array, from: number, to: number) => {
    for (let k = from; k < to && column[k]! < columns; k++, at++) {
      offset[at] = column[k]! * BYTES_OF_LANES;
      value[at] = values[k]!;
    }
    start[++row] = at;
  };
}
