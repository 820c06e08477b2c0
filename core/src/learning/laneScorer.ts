import { BYTES_OF_LANES, LANES, laneMemory } from './laneMemory.js';
import { roomForRows, rowFiller } from './laneRows.js';
import type { LinearModel } from './linearModel.js';
import type { CompressedRows } from './sparseRows.js';

/** The weights of a model, that of column j at `first` + `step` · j. They hold until columns are derived or rows scored. */
export interface WeightsInPlace {
  numbers: Float64Array;
  first: number;
  step: number;
}

/** Scores rows by many models. */
export interface LaneScorer {
  /**
   * Makes a further column of each row: one that weighs as much as the row scores without the intercept.
   *
   * @returns the first of them
   */
  derive: (rows: CompressedRows) => number;
  /** @returns by model, the score of each row */
  score: (rows: CompressedRows) => Float64Array[];
  weightsOf: (model: number) => WeightsInPlace;
}

/** @param further so many columns can be derived */
export function laneScorer(
  columns: number,
  models: readonly LinearModel[],
  further: number,
): LaneScorer {
  const memory = laneMemory();
  const inGroup = LANES * (columns + further);
  const groups = Array.from({ length: Math.ceil(models.length / LANES) }, (_, group) => {
    const place = memory.room(BYTES_OF_LANES * (columns + further));
    const lanes = memory.floats(place, inGroup);
    models.slice(group * LANES, (group + 1) * LANES).forEach(({ weights }, lane) => {
      for (let j = 0, at = lane; j < columns; j++, at += LANES) lanes[at] = weights[j]!;
    });
    return place;
  });
  let derived = 0;
  let room = { rows: 0, entries: 0, list: 0, into: 0, at: roomForRows(memory, 0, 0) };
  /** Makes the function that multiplies the rows with a group of models. */
  const store = ({ count, start: from, column, value: values }: CompressedRows) => {
    const entries = from[count]!;
    if (count > room.rows || entries > room.entries)
      room = {
        ...{ rows: 2 * count, entries: 2 * entries, list: memory.room(8 * count) },
        ...{
          into: memory.room(2 * BYTES_OF_LANES * count),
          at: roomForRows(memory, 2 * count, 2 * entries),
        },
      };
    const { start, offset, value } = room.at;
    const fill = rowFiller(memory, room.at, columns + derived, { rows: count, entries });
    for (let row = 0; row < count; row++) fill(column, values, from[row]!, from[row + 1]!);
    memory.ints(room.list, count).forEach((_, row, list) => (list[row] = row));
    return (group: number, into: number) =>
      memory.run.times(room.list, count, start, start + 4, offset, value, group, into);
  };
  return {
    derive(rows) {
      const first = columns + derived;
      const multiply = store(rows);
      for (const group of groups) multiply(group, group + BYTES_OF_LANES * first);
      derived += rows.count;
      return first;
    },
    score(rows) {
      const multiply = store(rows);
      const scores = models.map(() => new Float64Array(rows.count));
      groups.forEach((place, group) => {
        multiply(place, room.into);
        const lanes = memory.floats(room.into, LANES * rows.count);
        scores.slice(group * LANES, (group + 1) * LANES).forEach((score, lane) => {
          const { intercept } = models[group * LANES + lane]!;
          for (let row = 0, at = lane; row < score.length; row++, at += LANES)
            score[row] = lanes[at]! + intercept;
        });
      });
      return scores;
    },
    weightsOf: (model) => ({
      numbers: memory.floats(groups[Math.floor(model / LANES)]!, inGroup),
      ...{ first: model % LANES, step: LANES },
    }),
  };
}
