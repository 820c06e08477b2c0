import {
  BYTES_OF_LANES,
  LANES,
  laneMemory,
  ROUGH_LANES,
  type LaneMemory,
  type LaneProduct,
} from './laneMemory.js';
import { roomForRows, rowFiller } from './laneRows.js';
import { newFloats, newInts } from './lists.js';
import type { CompressedRows, Factors, SparseRows } from './sparseRows.js';

/** A matrix X in memory, and products with vectors that stand side by side there. */
export interface StoredMatrix {
  memory: LaneMemory;
  /** Where vectors by column stand. */
  byColumn: number;
  exact: SideBySide;
  rough: SideBySide;
}

/** Products with as many vectors as go side by side in numbers of one size. */
export interface SideBySide {
  lanes: number;
  /** Vectors by row or column that stand at a place. To be read anew where room was made meanwhile. */
  vectors: (place: number, length: number) => Float64Array | Float32Array;
  /** By column, Xᵀ times what stands by row, of the rows listed; only of the common columns where these alone are wanted. */
  fromRows: (rows: ListedRows, byRow: number, isCommon: boolean) => void;
  /** By row, X times what stands by column, of the rows listed; only of the common columns where these alone are wanted. */
  toRows: (rows: ListedRows, byRow: number, isCommon: boolean) => void;
}

/** A list of rows in memory. */
export interface ListedRows {
  place: number;
  length: number;
}

export function storeMatrix(x: SparseRows): StoredMatrix {
  const { rows, commonStop, wholes, common } = x.factors ?? asOneFactor(x);
  const memory = laneMemory();
  const stored = roomForBoth(memory, rows);
  const storedWholes = roomForBoth(memory, wholes);
  const commonStops = memory.room(4 * rows.count);
  const everyWhole = memory.room(4 * wholes.count);
  const byColumn = memory.room(BYTES_OF_LANES * (x.columns + wholes.count));
  const byWhole = byColumn + BYTES_OF_LANES * x.columns;
  storeBoth(memory, stored, rows);
  storeBoth(memory, storedWholes, wholes);
  memory.ints(commonStops, rows.count).set(commonStop);
  memory.ints(everyWhole, wholes.count).forEach((_, i, every) => (every[i] = i));

  const sideBySide = (
    { lanes, vectors }: Pick<SideBySide, 'lanes' | 'vectors'>,
    value: 'value' | 'roughValue',
    { times, transposeTimes }: { times: LaneProduct; transposeTimes: LaneProduct },
  ): SideBySide => {
    const withRows = (
      product: LaneProduct,
      isCommon: boolean,
      list: ListedRows,
      by: [number, number],
    ) => {
      const { start, offset } = stored;
      const stop = isCommon ? commonStops : start + 4;
      product(list.place, list.length, start, stop, offset, stored[value], ...by);
    };
    const withWholes = (product: LaneProduct, isCommon: boolean, by: [number, number]) => {
      const { start, offset } = storedWholes;
      const count = isCommon ? common : wholes.count;
      product(everyWhole, count, start, start + 4, offset, storedWholes[value], ...by);
    };
    return {
      ...{ lanes, vectors },
      fromRows(list, byRow, isCommon) {
        const used = isCommon ? [x.common, common] : [x.columns, wholes.count];
        vectors(byColumn, used[0]!).fill(0);
        vectors(byWhole, used[1]!).fill(0);
        withRows(transposeTimes, isCommon, list, [byRow, byColumn]);
        withWholes(transposeTimes, isCommon, [byWhole, byColumn]);
      },
      toRows(list, byRow, isCommon) {
        withWholes(times, isCommon, [byColumn, byWhole]);
        withRows(times, isCommon, list, [byColumn, byRow]);
      },
    };
  };
  const { times, transposeTimes, roughTimes, roughTransposeTimes } = memory.run;
  return {
    ...{ memory, byColumn },
    exact: sideBySide(
      { lanes: LANES, vectors: (place, length) => memory.floats(place, LANES * length) },
      'value',
      { times, transposeTimes },
    ),
    rough: sideBySide(
      {
        lanes: ROUGH_LANES,
        vectors: (place, length) => memory.roughFloats(place, ROUGH_LANES * length),
      },
      'roughValue',
      { times: roughTimes, transposeTimes: roughTransposeTimes },
    ),
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
