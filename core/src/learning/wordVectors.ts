import { laneMemory } from './laneMemory.js';
import type { WordTable } from './wordTable.js';

/** Vectors of words by their number, where sums of them are soon made. */
export interface WordVectors {
  /** Numbers in a vector, none where there are no vectors, and what a text's mean counts: see `WordTable`. */
  size: number;
  weight: number;
  has: (word: number) => boolean;
  /** Looks up the vector of the next word. */
  add: (form: string) => void;
  /** To be read anew after words were added. */
  of: (word: number) => Float32Array;
  /** Makes sums, each beginning at nothing. */
  begin: () => void;
  addTimes: (word: number, times: number) => void;
  /** It holds until the next begins. */
  sum: () => Float64Array;
}

export function wordVectors(table: WordTable | null): WordVectors {
  const { size, weight } = table ?? { size: 0, weight: 0 };
  const bytes = 16 * Math.ceil(size / 4);
  const memory = laneMemory();
  const into = memory.room(2 * bytes);
  const vector = new Float64Array(size);
  const isThere: boolean[] = [];
  let room = 1024;
  let place = memory.room(room * bytes);
  return {
    size,
    weight,
    has: (word) => isThere[word]!,
    add(form) {
      const word = isThere.length;
      if (word === room) {
        const larger = memory.room(2 * room * bytes);
        const all = memory.roughFloats(place, (room * bytes) / 4);
        memory.roughFloats(larger, all.length).set(all);
        [place, room] = [larger, 2 * room];
      }
      const row = table?.rowOf.get(form);
      isThere.push(row !== undefined);
      if (row === undefined) return;
      vector.fill(0);
      table!.addTo(vector, row, 1);
      memory.roughFloats(place + word * bytes, size).set(vector);
    },
    of: (word) => memory.roughFloats(place + word * bytes, size),
    begin: () => void memory.floats(into, size).fill(0),
    addTimes(word, times) {
      if (isThere[word]) memory.run.addScaled(bytes, place + word * bytes, into, times);
    },
    sum: () => memory.floats(into, size),
  };
}
