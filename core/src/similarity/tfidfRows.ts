import { splitWords } from '../text/index.js';

/** Texts as vectors of their words: text t holds entries start[t] … start[t + 1] − 1. */
export interface TfidfRows {
  start: Int32Array;
  column: Int32Array;
  value: Float64Array;
  columns: number;
}

/**
 * Weighs the words of texts by their rarity (tf-idf with each word counted once a text); every vector has length 1,
 * but for a text that shares no word with another, whose vector is zero.
 */
export function tfidfRows(texts: readonly string[]): TfidfRows {
  const columnOf = new Map<string, number>();
  const found: number[] = [];
  const start = new Int32Array(texts.length + 1);
  const held: number[] = [];
  for (const [t, text] of texts.entries()) {
    const forms = new Set(splitWords(text).map((word) => word.form));
    for (const form of forms) {
      let column = columnOf.get(form);
      if (column === undefined) {
        column = columnOf.size;
        columnOf.set(form, column);
        held.push(0);
      }
      held[column]! += 1;
      found.push(column);
    }
    start[t + 1] = found.length;
  }
  const column = Int32Array.from(found);
  const value = new Float64Array(column.length);
  for (let t = 0; t < texts.length; t++) {
    let square = 0;
    for (let e = start[t]!; e < start[t + 1]!; e++) {
      // a word of one text alone says nothing about similarity
      const texted = held[column[e]!]!;
      value[e] = texted < 2 ? 0 : Math.log((1 + texts.length) / texted);
      square += value[e]! ** 2;
    }
    for (let e = start[t]!; e < start[t + 1]!; e++) value[e]! /= Math.sqrt(square) || 1;
  }
  return { start, column, value, columns: columnOf.size };
}
