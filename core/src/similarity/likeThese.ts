import { centredVectors, type SentenceVectors } from '../sentences/index.js';
import { tfidfRows } from './tfidfRows.js';

/**
 * How like each text is to some of them taken together: the cosine with their sum of its vector of words (tf-idf),
 * beside which stands that of its meaning where it was read for it.
 *
 * @param chosen indices of the texts that the others are compared with
 * @param vectors sentence vectors of the texts; null where nothing is read for meaning
 * @returns a number for each text: 1 for the same words, 0 for no word in common; less for a meaning unlike theirs
 */
export function likeThese(
  texts: readonly string[],
  chosen: readonly number[],
  vectors: SentenceVectors | null = null,
): Float64Array {
  const { start, column, value, columns } = tfidfRows(texts);
  const meaning = vectors && centredVectors(texts, vectors);
  const words = new Float64Array(columns);
  const means = new Float64Array(meaning?.size ?? 0);
  for (const t of chosen) {
    for (let e = start[t]!; e < start[t + 1]!; e++) words[column[e]!]! += value[e]!;
    meaning?.of(texts[t]!)?.forEach((one, d) => (means[d]! += one));
  }
  const length = Math.sqrt(squaresOf(words) + squaresOf(means)) || 1;
  return Float64Array.from(texts, (text, t) => {
    let product = 0;
    let squares = 0;
    for (let e = start[t]!; e < start[t + 1]!; e++) {
      product += value[e]! * words[column[e]!]!;
      squares += value[e]! ** 2;
    }
    const vector = meaning?.of(text);
    if (vector) {
      for (let d = 0; d < means.length; d++) product += vector[d]! * means[d]!;
      squares += 1;
    }
    return product / (length * (Math.sqrt(squares) || 1));
  });
}

const squaresOf = (numbers: Float64Array): number =>
  numbers.reduce((sum, one) => sum + one * one, 0);
