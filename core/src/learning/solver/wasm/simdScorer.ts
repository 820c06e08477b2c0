import { VECTOR_BYTES, simdMemory } from './simdMemory.js';
import { listAllRows, allocateRows, storeRows } from './storedRows.js';
import type { LinearModel } from '../linearModel.js';
import type { CompressedRows } from '../../features/sparseRows.js';

/** The weights of a model: that of column j is at `first` + `step` · j. Valid until columns are derived or rows scored. */
export interface WeightView {
  numbers: Float64Array | Float32Array;
  first: number;
  step: number;
}

/** Scores rows by many models. */
export interface SimdScorer {
  /**
   * Adds a column for each row, with the row's score without the intercept as its weight in each model.
   *
   * @returns the first new column
   */
  derive: (rows: CompressedRows) => number;
  /** @returns scores by model and row, valid until the next call */
  score: (rows: CompressedRows) => Float64Array[];
  weightsOf: (model: number) => WeightView;
}

/**
 * @param further number of columns that can be derived
 * @param precision of the numbers
 */
export function simdScorer(
  columns: number,
  models: readonly LinearModel[],
  further: number,
  precision: 'f64' | 'f32',
): SimdScorer {
  const memory = simdMemory();
  const { lanes, numbers, times } = memory[precision];
  const inGroup = lanes * (columns + further);
  const groups = Array.from({ length: Math.ceil(models.length / lanes) }, (_, group) => {
    const place = memory.allocate(VECTOR_BYTES * (columns + further));
    const weighed = numbers(place, inGroup);
    models.slice(group * lanes, (group + 1) * lanes).forEach(({ weights }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += lanes) weighed[at] = weights[j]!;
    });
    return place;
  });
  let derived = 0;
  let scores: Float64Array[] = [];
  let room = {
    rows: 0,
    entries: 0,
    list: 0,
    into: 0,
    at: allocateRows(memory, 0, 0, memory[precision]),
  };
  /** Stores rows and makes the function that multiplies them by a group of models. */
  const store = (rows: CompressedRows) => {
    const { count } = rows;
    const entries = rows.start[count]!;
    if (count > room.rows || entries > room.entries)
      room = {
        rows: 2 * count,
        entries: 2 * entries,
        list: listAllRows(memory, 2 * count),
        into: memory.allocate(2 * VECTOR_BYTES * count),
        at: allocateRows(memory, 2 * count, 2 * entries, memory[precision]),
      };
    const { list, at } = room;
    storeRows(memory, at, rows, memory[precision]);
    return (group: number, into: number) =>
      times(list, count, at.start, at.start + 4, at.offset, at.value, group, into);
  };
  return {
    derive(rows) {
      const first = columns + derived;
      const multiply = store(rows);
      for (const group of groups) multiply(group, group + VECTOR_BYTES * first);
      derived += rows.count;
      return first;
    },
    score(rows) {
      const multiply = store(rows);
      if (scores[0]?.length !== rows.count) scores = models.map(() => new Float64Array(rows.count));
      groups.forEach((place, group) => {
        multiply(place, room.into);
        const scored = numbers(room.into, lanes * rows.count);
        scores.slice(group * lanes, (group + 1) * lanes).forEach((score, lane) => {
          const { intercept } = models[group * lanes + lane]!;
          for (let row = 0, at = lane; row < score.length; row++, at += lanes)
            score[row] = scored[at]! + intercept;
        });
      });
      return scores;
    },
    weightsOf: (model) => ({
      numbers: numbers(groups[Math.floor(model / lanes)]!, inGroup),
      first: model % lanes,
      step: lanes,
    }),
  };
}
