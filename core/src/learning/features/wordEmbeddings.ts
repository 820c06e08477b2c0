import { simdMemory } from '../solver/wasm/simdMemory.js';
import type { WordTable } from './wordTable.js';

/** Embeddings by word id, with fast weighted sums. */
export interface WordEmbeddings {
  /** Numbers in a vector, none where there are no vectors, and what a text's mean counts: see `WordTable`. */
  size: number;
  weight: number;
  has: (word: number) => boolean;
  /** Looks up the vector of the next word. */
  add: (form: string) => void;
  /** To be read again after words were added. */
  of: (word: number) => Float32Array;
  /** Begins a sum at zero. */
  begin: () => void;
  addTimes: (word: number, times: number) => void;
  /** Valid until the next sum begins. */
  sum: () => Float64Array;
}

export function wordEmbeddings(table: WordTable | null): WordEmbeddings {
  const { size, weight } = table ?? { size: 0, weight: 0 };
  const bytes = 16 * Math.ceil(size / 4);
  const memory = simdMemory();
  const into = memory.allocate(2 * bytes);
  const vector = new Float64Array(size);
  const isThere: boolean[] = [];
  let room = 1024;
  let place = memory.allocate(room * bytes);
  return {
    size,
    weight,
    has: (word) => isThere[word]!,
    add(form) {
      const word = isThere.length;
      if (word === room) {
        const larger = memory.allocate(2 * room * bytes);
        const all = memory.floats32(place, (room * bytes) / 4);
        memory.floats32(larger, all.length).set(all);
        [place, room] = [larger, 2 * room];
      }
      const row = table?.rowOf.get(form);
      isThere.push(row !== undefined);
      if (row === undefined) return;
      vector.fill(0);
      table!.addTo(vector, row, 1);
      memory.floats32(place + word * bytes, size).set(vector);
    },
    of: (word) => memory.floats32(place + word * bytes, size),
    begin: () => void memory.floats(into, size).fill(0),
    addTimes(word, times) {
      if (isThere[word]) memory.run.addScaled(bytes, place + word * bytes, into, times);
    },
    sum: () => memory.floats(into, size),
  };
}
