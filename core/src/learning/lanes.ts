import {
  BYTES_OF_LANES,
  LANES,
  laneMemory,
  type LaneMemory,
  type LaneProduct,
} from './laneMemory.js';
import { roomForRows, rowFiller } from './laneRows.js';
import { newFloats, newInts } from './lists.js';
import type { CompressedRows, Factors, SparseRows } from './sparseRows.js';

/** So many vectors go through a matrix side by side where numbers of 32 bits are exact enough. */
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
  value: 'value' | 'roughValue';
  times: LaneProduct;
  transposeTimes: LaneProduct;
}

export function laneMatrix(x: SparseRows): LaneMatrix {
  const { rows, commonStop, wholes, common } = x.factors ?? asOneFactor(x);
  const { count } = rows;
  const memory = laneMemory();
  const storedRows = roomForBoth(memory, rows);
  const storedWholes = roomForBoth(memory, wholes);
  const commonStops = memory.room(4 * count);
  const list = memory.room(4 * Math.max(count, wholes.count));
  const everyWhole = memory.room(4 * wholes.count);
  const byRow = memory.room(BYTES_OF_LANES * count);
  const byColumn = memory.room(BYTES_OF_LANES * (x.columns + wholes.count));
  const byWhole = byColumn + BYTES_OF_LANES * x.columns;
  storeBoth(memory, storedRows, rows);
  storeBoth(memory, storedWholes, wholes);
  memory.ints(commonStops, count).set(commonStop);
  memory.ints(everyWhole, wholes.count).forEach((_, i, every) => (every[i] = i));
  const listed = memory.ints(list, count);
  const { times, transposeTimes, roughTimes, roughTransposeTimes } = memory.run;
  const columns = x.columns + wholes.count;
  const exact: SideBySide = {
    ...{ lanes: LANES, value: 'value', times, transposeTimes },
    rows: memory.floats(byRow, LANES * count),
    columns: memory.floats(byColumn, LANES * columns),
  };
  const rough: SideBySide = {
    ...{ lanes: ROUGH_LANES, value: 'roughValue' },
    ...{ times: roughTimes, transposeTimes: roughTransposeTimes },
    rows: memory.roughFloats(byRow, ROUGH_LANES * count),
    columns: memory.roughFloats(byColumn, ROUGH_LANES * columns),
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
  const { start, offset } = storedRows;
  const fromRows = (by: SideBySide, asked: readonly AskedProduct[], isCommon: boolean) => {
    by.rows.fill(0);
    asked.forEach(({ vector, rows }, lane) => {
      for (let i = 0; i < rows.length; i++) by.rows[rows[i]! * by.lanes + lane]! += vector[i]!;
    });
    const stop = isCommon ? commonStops : start + 4;
    by.columns.fill(0, 0, by.lanes * (isCommon ? x.common : columns));
    if (isCommon) by.columns.fill(0, by.lanes * x.columns, by.lanes * (x.columns + common));
    by.transposeTimes(list, length, start, stop, offset, storedRows[by.value], byRow, byColumn);
    const { start: first, offset: at } = storedWholes;
    const count = isCommon ? common : wholes.count;
    by.transposeTimes(
      everyWhole,
      count,
      first,
      first + 4,
      at,
      storedWholes[by.value],
      byWhole,
      byColumn,
    );
  };
  const toRows = (by: SideBySide, asked: readonly AskedProduct[], isCommon: boolean) => {
    const { start: first, offset: at } = storedWholes;
    const count = isCommon ? common : wholes.count;
    by.times(everyWhole, count, first, first + 4, at, storedWholes[by.value], byColumn, byWhole);
    const stop = isCommon ? commonStops : start + 4;
    by.times(list, length, start, stop, offset, storedRows[by.value], byColumn, byRow);
    asked.forEach(({ rows, into }, lane) => {
      for (let i = 0; i < rows.length; i++) into[i] = by.rows[rows[i]! * by.lanes + lane]!;
    });
  };
  const copyColumns = (by: SideBySide, asked: readonly AskedProduct[], columns: number) =>
    asked.forEach(({ into }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += by.lanes) into[j] = by.columns[at]!;
    });
  return {
    multiply(product, isRough, asked) {
      const by = isRough ? rough : exact;
      listRows(asked);
      switch (product) {
        case 'kernel':
          fromRows(by, asked, false);
          toRows(by, asked, false);
          break;
        case 'weights':
          fromRows(by, asked, false);
          copyColumns(by, asked, x.columns);
          break;
        case 'toCommon':
          fromRows(by, asked, true);
          copyColumns(by, asked, x.common);
          break;
        case 'fromCommon':
          asked.forEach(({ vector }, lane) => {
            for (let j = 0, at = lane; j < x.common; j++, at += by.lanes)
              by.columns[at] = vector[j]!;
          });
          toRows(by, asked, true);
      }
    },
  };
}

/** A matrix that is not taken apart: there are no wholes. */
function asOneFactor({ count, start, column, value, common }: SparseRows): Factors {
  const commonStop = start.slice(0, count);
  for (let row = 0; row < count; row++)
    while (commonStop[row]! < start[row + 1]! && column[commonStop[row]!]! < common)
      commonStop[row]! += 1;
  return {
    ...{ rows: { count, start, column, value }, commonStop, common: 0 },
    wholes: { count: 0, start: newInts(1), column: newInts(0), value: newFloats(0) },
  };
}

const roomForBoth = (memory: LaneMemory, { count, column }: CompressedRows) => ({
  ...roomForRows(memory, count, column.length),
  roughValue: memory.room(4 * column.length),
});

/** Stores rows, their numbers in both sizes. */
function storeBoth(
  memory: LaneMemory,
  stored: ReturnType<typeof roomForBoth>,
  { count, start, column, value }: CompressedRows,
): void {
  const entries = column.length;
  const fill = rowFiller(memory, stored, Infinity, { rows: count, entries });
  for (let row = 0; row < count; row++) fill(column, value, start[row]!, start[row + 1]!);
  memory.roughFloats(stored.roughValue, entries).set(memory.floats(stored.value, entries));
}
