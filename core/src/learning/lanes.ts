import type { SparseRows } from './features.js';
import { lanesBinary } from './lanesBinary.js';
import type { LinearModel } from './linearModel.js';

/** So many vectors go through a matrix side by side. */
export const LANES = 8;

const bytesOfLanes = 8 * LANES;
const bytesOfPage = 65_536;

/** Parts of a WebAssembly module's memory, and the products that it works out there (`lanes.wat`). */
interface LaneMemory {
  /** Makes room for so many bytes. What was read from the memory before must be read anew. */
  room(bytes: number): number;
  ints(place: number, length: number): Int32Array;
  floats(place: number, length: number): Float64Array;
  times: LaneProduct;
  transposeTimes: LaneProduct;
}
type LaneProduct = (
  ...places: [
    ...[rows: number, count: number, start: number, stop: number, offset: number],
    ...[value: number, from: number, into: number],
  ]
) => void;

// Declared for this file alone: TypeScript knows them of browsers only, with all that these have besides.
declare const WebAssembly: {
  Module: new (bytes: Uint8Array) => object;
  Instance: new <Exports>(module: object) => { readonly exports: Exports };
};
declare const atob: (base64: string) => string;
interface Memory {
  readonly buffer: ArrayBuffer;
  grow(pages: number): number;
}

let compiled: object | undefined;

function laneMemory(): LaneMemory {
  compiled ??= new WebAssembly.Module(
    Uint8Array.from(atob(lanesBinary), (letter) => letter.charCodeAt(0)),
  );
  const { memory, times, transposeTimes } = new WebAssembly.Instance<{
    memory: Memory;
    times: LaneProduct;
    transposeTimes: LaneProduct;
  }>(compiled).exports;
  let used = 0;
  return {
    room(bytes) {
      const place = used;
      used += Math.ceil(bytes / bytesOfLanes) * bytesOfLanes;
      const missing = used - memory.buffer.byteLength;
      if (missing > 0) memory.grow(Math.ceil(missing / bytesOfPage));
      return place;
    },
    ints: (place, length) => new Int32Array(memory.buffer, place, length),
    floats: (place, length) => new Float64Array(memory.buffer, place, length),
    ...{ times, transposeTimes },
  };
}

/**
 * What can be asked of a matrix X:
 * - `kernel`: X·Xᵀ·v, by row from by row
 * - `weights`: Xᵀ·v, by column from by row
 * - `toCommon`, `fromCommon`: Xᵀ·v of the common columns alone, by column from by row, and X·v of these, by row
 */
export type Product = 'kernel' | 'weights' | 'toCommon' | 'fromCommon';

/**
 * A vector, the rows of the matrix that it is for, and where the product goes. By row there is one number a row
 * listed.
 */
export interface AskedProduct {
  vector: Float64Array;
  rows: Int32Array;
  into: Float64Array;
}

/** Works out products of a matrix with up to LANES vectors, each the same to the last bit whatever the others are. */
export interface LaneMatrix {
  multiply(product: Product, asked: readonly AskedProduct[]): void;
}

export function laneMatrix(x: SparseRows): LaneMatrix {
  const memory = laneMemory();
  const count = x.start.length - 1;
  const entries = x.column.length;
  const stored = roomForRows(memory, count, entries);
  const commonStop = memory.room(4 * count);
  const list = memory.room(4 * count);
  const byRow = memory.room(bytesOfLanes * count);
  const byColumn = memory.room(bytesOfLanes * x.columns);
  const fill = rowFiller(memory, stored, x.columns, { rows: count, entries });
  const stops = memory.ints(commonStop, count);
  const listed = memory.ints(list, count);
  const rowLanes = memory.floats(byRow, LANES * count);
  const columnLanes = memory.floats(byColumn, LANES * x.columns);
  for (let row = 0; row < count; row++) {
    const [from, to] = [x.start[row]!, x.start[row + 1]!];
    let common = from;
    while (common < to && x.column[common]! < x.common) common += 1;
    stops[row] = common;
    fill(x.column, x.value, from, to);
  }

  let listedFor: Int32Array[] = [];
  let length = 0;
  const listRows = (asked: readonly AskedProduct[]) => {
    const lists = asked.map(({ rows }) => rows);
    if (lists.length === listedFor.length && lists.every((rows, i) => rows === listedFor[i]))
      return;
    const wanted = new Uint8Array(count);
    for (const rows of lists) for (let i = 0; i < rows.length; i++) wanted[rows[i]!] = 1;
    length = 0;
    for (let row = 0; row < count; row++) if (wanted[row] === 1) listed[length++] = row;
    listedFor = lists;
  };
  const { start, offset, value } = stored;
  const transposeTimes = (asked: readonly AskedProduct[], stop: number, columns: number) => {
    rowLanes.fill(0);
    asked.forEach(({ vector, rows }, lane) => {
      for (let i = 0; i < rows.length; i++) rowLanes[rows[i]! * LANES + lane]! += vector[i]!;
    });
    columnLanes.fill(0, 0, LANES * columns);
    memory.transposeTimes(list, length, start, stop, offset, value, byRow, byColumn);
  };
  const times = (asked: readonly AskedProduct[], stop: number) => {
    memory.times(list, length, start, stop, offset, value, byColumn, byRow);
    asked.forEach(({ rows, into }, lane) => {
      for (let i = 0; i < rows.length; i++) into[i] = rowLanes[rows[i]! * LANES + lane]!;
    });
  };
  const copyColumns = (asked: readonly AskedProduct[], columns: number) =>
    asked.forEach(({ into }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += LANES) into[j] = columnLanes[at]!;
    });
  const wholeStop = start + 4;
  return {
    multiply(product, asked) {
      listRows(asked);
      switch (product) {
        case 'kernel':
          transposeTimes(asked, wholeStop, x.columns);
          times(asked, wholeStop);
          break;
        case 'weights':
          transposeTimes(asked, wholeStop, x.columns);
          copyColumns(asked, x.columns);
          break;
        case 'toCommon':
          transposeTimes(asked, commonStop, x.common);
          copyColumns(asked, x.common);
          break;
        case 'fromCommon':
          asked.forEach(({ vector }, lane) => {
            for (let j = 0, at = lane; j < x.common; j++, at += LANES) columnLanes[at] = vector[j]!;
          });
          times(asked, commonStop);
      }
    },
  };
}

/** Entries of a row, columns in ascending order. */
export interface SparseRow {
  columns: Int32Array;
  values: Float64Array;
}

/**
 * Makes the function that scores rows by many models.
 *
 * @param columns entries of rows beyond them count nothing
 * @returns by model, the score of each row
 */
export function laneScorer(
  columns: number,
  models: readonly LinearModel[],
): (rows: readonly SparseRow[]) => Float64Array[] {
  const memory = laneMemory();
  const groups = Array.from({ length: Math.ceil(models.length / LANES) }, (_, group) => {
    const place = memory.room(bytesOfLanes * columns);
    const lanes = memory.floats(place, LANES * columns);
    models.slice(group * LANES, (group + 1) * LANES).forEach(({ weights }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += LANES) lanes[at] = weights[j]!;
    });
    return place;
  });
  let room = { rows: 0, entries: 0, list: 0, into: 0, at: roomForRows(memory, 0, 0) };
  return (rows) => {
    const count = rows.length;
    const entries = rows.reduce((sum, row) => sum + row.columns.length, 0);
    if (count > room.rows || entries > room.entries)
      room = {
        ...{ rows: count, entries: 2 * entries, list: memory.room(4 * count) },
        ...{ into: memory.room(bytesOfLanes * count), at: roomForRows(memory, count, 2 * entries) },
      };
    const { start, offset, value } = room.at;
    const fill = rowFiller(memory, room.at, columns, { rows: count, entries });
    for (const row of rows) fill(row.columns, row.values, 0, row.columns.length);
    memory.ints(room.list, count).forEach((_, row, list) => (list[row] = row));
    const scores = models.map(() => new Float64Array(count));
    groups.forEach((place, group) => {
      memory.times(room.list, count, start, start + 4, offset, value, place, room.into);
      const lanes = memory.floats(room.into, LANES * count);
      scores.slice(group * LANES, (group + 1) * LANES).forEach((score, lane) => {
        const { intercept } = models[group * LANES + lane]!;
        for (let row = 0, at = lane; row < count; row++, at += LANES)
          score[row] = lanes[at]! + intercept;
      });
    });
    return scores;
  };
}

interface StoredRows {
  start: number;
  offset: number;
  value: number;
}

const roomForRows = (memory: LaneMemory, rows: number, entries: number): StoredRows => ({
  start: memory.room(4 * (rows + 1)),
  offset: memory.room(4 * entries),
  value: memory.room(8 * entries),
});

/** Makes the function that stores row after row. */
function rowFiller(
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
      offset[at] = column[k]! * bytesOfLanes;
      value[at] = values[k]!;
    }
    start[++row] = at;
  };
}
