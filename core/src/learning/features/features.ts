import { lengthOf, newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { SparseRows } from './sparseRows.js';
import type { Vocabulary } from './vocabulary.js';

/** A text as a sparse vector. */
export interface TextVector {
  /** In ascending order. */
  columns: Int32Array;
  values: Float64Array;
}

/**
 * Makes the function that turns a text into a sparse vector: tf-idf with tf = 1 + ln(count), words (with pairs of words) and
 * character runs each scaled to length 1, the mean of its words' vectors, weighted in the same way and scaled to
 * the root of their weight, and its vector as a sentence.
 */
export function vectoriser({
  idf,
  vectors,
  sentences,
  words,
  wordsOf,
  pairColumn,
}: Vocabulary): (text: string) => TextVector {
  const counts = new Int32Array(idf.length);
  const isRun = new Uint8Array(idf.length);
  /** Counts a column, and lists it the first time. */
  const tell = (column: number, used: number[]) => {
    if (counts[column] === 0) used.push(column);
    counts[column]! += 1;
  };
  return (text) => {
    const used: number[] = [];
    const said = wordsOf(text);
    for (let i = 0; i < said.length; i++) {
      const word = said[i]!;
      const pair = i > 0 ? pairColumn(said[i - 1]!, word) : -1;
      if (pair !== -1) tell(pair, used);
      if (words.column[word] !== -1) tell(words.column[word]!, used);
      for (let k = words.firstRun[word]!; k < words.firstRun[word + 1]!; k++) {
        isRun[words.run[k]!] = 1;
        tell(words.run[k]!, used);
      }
    }
    vectors.begin();
    for (const [word, times] of countEach(said))
      vectors.addTimes(word, (1 + Math.log(times)) * words.idf[word]!);
    const sum = vectors.sum();
    const length = lengthOf(sum);
    const ofWordVectors = length > 0 ? sum.length : 0;
    const sentence = sentences.of(text) ?? NOTHING;
    const first = ofWordVectors + sentence.length;
    const columns = new Int32Array(first + used.length);
    const values = new Float64Array(columns.length);
    sentence.forEach((value, i) => {
      columns[ofWordVectors + i] = sum.length + i;
      values[ofWordVectors + i] = value;
    });
    for (let entry = 0; entry < ofWordVectors; entry++) {
      columns[entry] = entry;
      values[entry] = (sum[entry]! * Math.sqrt(vectors.weight)) / length;
    }
    columns.subarray(first).set(used);
    columns.subarray(first).sort();
    let [ofWords, ofRuns] = [0, 0];
    for (let entry = first; entry < columns.length; entry++) {
      const column = columns[entry]!;
      const value = (1 + Math.log(counts[column]!)) * idf[column]!;
      values[entry] = value;
      if (isRun[column] === 1) ofRuns += value * value;
      else ofWords += value * value;
      counts[column] = 0;
    }
    for (let entry = first; entry < columns.length; entry++)
      values[entry]! /= Math.sqrt(isRun[columns[entry]!] === 1 ? ofRuns : ofWords);
    return { columns, values };
  };
}

const NOTHING = new Float32Array();

function countEach(said: Int32Array): Map<number, number> {
  const times = new Map<number, number>();
  for (const word of said) times.set(word, (times.get(word) ?? 0) + 1);
  return times;
}

/** Collects vectors into a matrix, without columns that occur in no text that is learnt from. */
export function rowBuilder({ learnt, vectors, sentences }: Vocabulary): {
  add: (vector: TextVector) => void;
  rows: () => SparseRows;
} {
  let start = new Int32Array(64);
  let column = new Int32Array(1024);
  let value = new Float64Array(1024);
  let rows = 0;
  return {
    add({ columns, values }) {
      const from = start[rows]!;
      let kept = columns.length;
      while (kept > 0 && columns[kept - 1]! >= learnt) kept -= 1;
      start = withCapacity(start, rows + 2, newInts);
      column = withCapacity(column, from + kept, newInts);
      value = withCapacity(value, from + kept, newFloats);
      column.set(columns.subarray(0, kept), from);
      value.set(values.subarray(0, kept), from);
      start[++rows] = from + kept;
    },
    rows: () => ({
      count: rows,
      start: start.slice(0, rows + 1),
      column: column.slice(0, start[rows]),
      value: value.slice(0, start[rows]),
      columns: learnt,
      common: vectors.size + sentences.size,
    }),
  };
}
