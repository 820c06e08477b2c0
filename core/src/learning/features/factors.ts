import type { CompressedRows, Factors } from './sparseRows.js';
import type { Vocabulary } from './vocabulary.js';
import { sentenceOf, type TokenizedTexts } from './tokenizedTexts.js';

/**
 * Factors a matrix into texts × words × columns. A word's character runs become one row of the second factor where the word
 * is in several texts; embeddings do where there are fewer words than texts, else each text keeps its own.
 */
export function factorsOf(
  texts: TokenizedTexts,
  { idf, learnt, vectors, sentences, words: known }: Vocabulary,
): Factors {
  const { count, firstWord, firstEntry } = texts;
  const words = texts.words.subarray(0, firstWord[count]);
  const runsOf = (word: number) =>
    known.run
      .subarray(known.firstRun[word], known.firstRun[word + 1])
      .filter((run) => run < learnt);
  const standsIn = new Map<number, number>();
  for (const word of words) standsIn.set(word, (standsIn.get(word) ?? 0) + 1);
  const { size } = vectors;
  const meant = [...standsIn.keys()].filter((word) => vectors.has(word));
  const vectorsAreWhole = meant.length * size + words.length < count * size;
  const whole = new Map<number, { vector: number; runs: number }>();
  const wholes = rowList();
  if (vectorsAreWhole)
    for (const word of meant) {
      whole.set(word, { vector: learnt + wholes.count(), runs: -1 });
      wholes.addVector(vectors.of(word));
      wholes.end();
    }
  const common = wholes.count();
  for (const [word, times] of standsIn) {
    if (times < 2) continue;
    const runs = learnt + wholes.count();
    whole.set(word, { vector: whole.get(word)?.vector ?? -1, runs });
    for (const run of runsOf(word)) wholes.add(run, idf[run]!);
    wholes.end();
  }

  const rows = rowList();
  const commonStop = new Int32Array(count);
  for (let t = 0; t < count; t++) {
    const places = Array.from(
      { length: firstWord[t + 1]! - firstWord[t]! },
      (_, w) => firstWord[t]! + w,
    );
    vectors.begin();
    for (const w of places) {
      const word = words[w]!;
      if (!vectors.has(word)) continue;
      if (vectorsAreWhole) rows.add(whole.get(word)!.vector, texts.meanings[w]!);
      else vectors.addTimes(word, texts.meanings[w]!);
    }
    if (!vectorsAreWhole && vectors.sum().some((value) => value !== 0))
      rows.addVector(vectors.sum());
    const sentence = sentenceOf(texts, sentences, t);
    if (sentence.some((value) => value !== 0)) rows.addVector(sentence, size);
    commonStop[t] = rows.entries();
    for (const w of places) {
      const word = words[w]!;
      const runs = whole.get(word)?.runs ?? -1;
      if (runs !== -1) rows.add(runs, texts.runs[w]!);
      else for (const run of runsOf(word)) rows.add(run, idf[run]! * texts.runs[w]!);
    }
    for (let k = firstEntry[t]!; k < firstEntry[t + 1]!; k++)
      rows.add(texts.column[k]!, texts.amount[k]!);
    rows.end();
  }
  return { rows: rows.rows(), commonStop, wholes: wholes.rows(), common, size };
}

function rowList() {
  const start = [0];
  const column: number[] = [];
  const value: number[] = [];
  const add = (at: number, number: number) => {
    column.push(at);
    value.push(number);
  };
  return {
    count: () => start.length - 1,
    entries: () => column.length,
    add,
    addVector: (vector: Float32Array | Float64Array, firstColumn = 0) =>
      vector.forEach((number, i) => add(firstColumn + i, number)),
    end: () => void start.push(column.length),
    rows: (): CompressedRows => ({
      count: start.length - 1,
      start: Int32Array.from(start),
      column: Int32Array.from(column),
      value: Float64Array.from(value),
    }),
  };
}
