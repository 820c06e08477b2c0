import { tfidfRows } from './tfidfRows.js';

/**
 * How like each text is to some of them taken together: the cosine of its vector of words (tf-idf) with the sum of
 * theirs.
 *
 * @param chosen indices of the texts that the others are compared with
 * @returns a number from 0 (no word in common) to 1 for each text
 */
export function likeThese(texts: readonly string[], chosen: readonly number[]): Float64Array {
  const { start, column, value, columns } = tfidfRows(texts);
  const sum = new Float64Array(columns);
  for (const t of chosen)
    for (let e = start[t]!; e < start[t + 1]!; e++) sum[column[e]!]! += value[e]!;
  const length = Math.sqrt(sum.reduce((square, one) => square + one * one, 0)) || 1;
  return Float64Array.from(texts, (_, t) => {
    let product = 0;
    for (let e = start[t]!; e < start[t + 1]!; e++) product += value[e]! * sum[column[e]!]!;
    return product / length;
  });
}
