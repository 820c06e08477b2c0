import type { SparseRows } from './features.js';
import { BYTES_OF_LANES, laneMemory, type LaneMemory, type LaneProduct } from './laneMemory.js';
import type { LinearModel } from './linearModel.js';

/** So many vectors go through a matrix side by side, and so many where numbers of 32 bits are exact enough. */
const LANES = BYTES_OF_LANES / Float64Array.BYTES_PER_ELEMENT;
const ROUGH_LANES = 2 * LANES;

/**
 * What can be asked of a matrix X:
 * - `kernel`: X·Xᵀ·v, by row from by row
 * - `weights`: Xᵀ·v, by column from by row
 * - `toCommon`, `fromCommon`: Xᵀ·v of the common columns alone, by column from by row, and X·v of these, by row
 */
export type Product = 'kernel' | 'weights' | 'toCommon' | 'fromCommon';

/** How many vectors a product is worked out for at once: twice as many in numbers of 32 bits. */
export const lanesOf = (isRough: boolean): number => (isRough ? ROUGH_LANES : LANES);

/**
 * A vector, the rows of the matrix that it is for, and where the product goes. By row there is one number a row
 * listed.
 */
export interface AskedProduct {
  vector: Float64Array;
  rows: Int32Array;
  into: Float64Array;
}

/** Works out products of a matrix with as many vectors as `lanesOf` tells, each the same to the last bit whatever the others are. */
export interface LaneMatrix {
  /** @param isRough whether numbers of 32 bits will do */
  multiply(product: Product, isRough: boolean, asked: readonly AskedProduct[]): void;
}

/** Vectors side by side, by row and by column, and what multiplies them with the entries. */
interface SideBySide {
  lanes: number;
  rows: Float64Array | Float32Array;
  columns: Float64Array | Float32Array;
  value: number;
  times: LaneProduct;
  transposeTimes: LaneProduct;
}

export function laneMatrix(x: SparseRows): LaneMatrix {
  const memory = laneMemory();
  const count = x.start.length - 1;
  const entries = x.column.length;
  const stored = roomForRows(memory, count, entries);
  const roughValue = memory.room(4 * entries);
  const commonStop = memory.room(4 * count);
  const list = memory.room(4 * count);
  const byRow = memory.room(BYTES_OF_LANES * count);
  const byColumn = memory.room(BYTES_OF_LANES * x.columns);
  const fill = rowFiller(memory, stored, x.columns, { rows: count, entries });
  const stops = memory.ints(commonStop, count);
  const listed = memory.ints(list, count);
  for (let row = 0; row < count; row++) {
    const [from, to] = [x.start[row]!, x.start[row + 1]!];
    let common = from;
    while (common < to && x.column[common]! < x.common) common += 1;
    stops[row] = common;
    fill(x.column, x.value, from, to);
  }
  memory.roughFloats(roughValue, entries).set(memory.floats(stored.value, entries));
  const { times, transposeTimes, roughTimes, roughTransposeTimes } = memory.run;
  const exact: SideBySide = {
    ...{ lanes: LANES, value: stored.value, times, transposeTimes },
    rows: memory.floats(byRow, LANES * count),
    columns: memory.floats(byColumn, LANES * x.columns),
  };
  const rough: SideBySide = {
    ...{ lanes: ROUGH_LANES, value: roughValue },
    ...{ times: roughTimes, transposeTimes: roughTransposeTimes },
    rows: memory.roughFloats(byRow, ROUGH_LANES * count),
    columns: memory.roughFloats(byColumn, ROUGH_LANES * x.columns),
  };

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
  const { start, offset } = stored;
  const fromRows = (by: SideBySide, asked: readonly AskedProduct[], stop: number, to: number) => {
    by.rows.fill(0);
    asked.forEach(({ vector, rows }, lane) => {
      for (let i = 0; i < rows.length; i++) by.rows[rows[i]! * by.lanes + lane]! += vector[i]!;
    });
    by.columns.fill(0, 0, by.lanes * to);
    by.transposeTimes(list, length, start, stop, offset, by.value, byRow, byColumn);
  };
  const toRows = (by: SideBySide, asked: readonly AskedProduct[], stop: number) => {
    by.times(list, length, start, stop, offset, by.value, byColumn, byRow);
    asked.forEach(({ rows, into }, lane) => {
      for (let i = 0; i < rows.length; i++) into[i] = by.rows[rows[i]! * by.lanes + lane]!;
    });
  };
  const copyColumns = (by: SideBySide, asked: readonly AskedProduct[], columns: number) =>
    asked.forEach(({ into }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += by.lanes) into[j] = by.columns[at]!;
    });
  const wholeStop = start + 4;
  return {
    multiply(product, isRough, asked) {
      const by = isRough ? rough : exact;
      listRows(asked);
      switch (product) {
        case 'kernel':
          fromRows(by, asked, wholeStop, x.columns);
          toRows(by, asked, wholeStop);
          break;
        case 'weights':
          fromRows(by, asked, wholeStop, x.columns);
          copyColumns(by, asked, x.columns);
          break;
        case 'toCommon':
          fromRows(by, asked, commonStop, x.common);
          copyColumns(by, asked, x.common);
          break;
        case 'fromCommon':
          asked.forEach(({ vector }, lane) => {
            for (let j = 0, at = lane; j < x.common; j++, at += by.lanes)
              by.columns[at] = vector[j]!;
          });
          toRows(by, asked, commonStop);
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
    const place = memory.room(BYTES_OF_LANES * columns);
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
        ...{
          into: memory.room(BYTES_OF_LANES * count),
          at: roomForRows(memory, count, 2 * entries),
        },
      };
    const { start, offset, value } = room.at;
    const fill = rowFiller(memory, room.at, columns, { rows: count, entries });
    for (const row of rows) fill(row.columns, row.values, 0, row.columns.length);
    memory.ints(room.list, count).forEach((_, row, list) => (list[row] = row));
    const scores = models.map(() => new Float64Array(count));
    groups.forEach((place, group) => {
      memory.run.times(room.list, count, start, start + 4, offset, value, place, room.into);
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
      offset[at] = column[k]! * BYTES_OF_LANES;
      value[at] = values[k]!;
    }
    start[++row] = at;
  };
}
