import { randomSource } from '../statistics/index.js';
import { projection } from './projection.js';
import { withoutWords } from '../text/index.js';

/** Vectors of texts as wholes, of length 1: see `SentenceEncoder`. */
export interface SentenceVectors {
  /** Numbers in a vector. */
  size: number;
  /** @returns null for a text that has none: it is not read yet, or in another language */
  of: (text: string) => Float32Array | null;
}

/** The columns of a text as a whole. */
export interface SentenceBlock {
  size: number;
  /** @returns the numbers of these columns; null for a text that has none */
  of: (text: string) => Float32Array | null;
}

export const NO_SENTENCES: SentenceBlock = { size: 0, of: () => null };

/** Squared length of a text's sentence vector, beside 1 for its words and 1 for its character runs. */
const WEIGHT = 2;
/** Directions that are kept: with 48, models are as good as with all 512 (docs/notes/learning.md). */
const KEPT = 48;
/** Oversampling: with more directions than are kept, fewer rounds suffice. */
const FOLLOWED = 64;
const ROUNDS = 4;
/** Of more texts than this, evenly spaced ones are used. */
const MOST_TEXTS = 600;
/** Texts with a vector below which the block would tell nothing. */
const FEWEST_TEXTS = 20;

/**
 * Sentence vectors of a question's answers along the directions in which these differ most: the first right singular
 * vectors of all answers, coded or not. Each text's is scaled to the root of the block's weight. Deterministic.
 *
 * @param excluded forms of words that are taken out of a text before it is read
 * @see Halko, Martinsson & Tropp (2011) Finding structure with randomness, for the subspace iteration
 */
export function sentenceBlock(
  vectors: SentenceVectors | null,
  texts: readonly string[],
  excluded: ReadonlySet<string>,
): SentenceBlock {
  if (!vectors) return NO_SENTENCES;
  const read = (text: string) => vectors.of(withoutWords(text, excluded));
  const step = Math.max(1, texts.length / MOST_TEXTS);
  const learnt = Array.from({ length: Math.ceil(texts.length / step) }, (_, i) =>
    read(texts[Math.floor(i * step)]!),
  ).filter((one) => one !== null);
  if (learnt.length < FEWEST_TEXTS) return NO_SENTENCES;
  const size = Math.min(KEPT, vectors.size);
  const directions = leadingDirections(learnt, vectors.size).subarray(0, size * vectors.size);
  const project = projection(directions, vectors.size);
  return {
    size,
    of(text) {
      const vector = read(text);
      if (!vector) return null;
      const along = project(vector);
      let squares = 0;
      for (const one of along) squares += one * one;
      const scale = Math.sqrt(WEIGHT / Math.max(squares, 1e-12));
      return along.map((one) => scale * one);
    },
  };
}

/** Orthonormal directions that carry the most of some vectors, one after the other. */
function leadingDirections(vectors: readonly Float32Array[], size: number): Float64Array {
  const products = new Float64Array(size * size);
  for (const vector of vectors)
    for (let i = 0; i < size; i++) {
      const one = vector[i]!;
      for (let j = i, at = i * size + i; j < size; j++, at++) products[at]! += one * vector[j]!;
    }
  for (let i = 0; i < size; i++)
    for (let j = 0; j < i; j++) products[i * size + j] = products[j * size + i]!;
  const next = randomSource(1);
  const followed = Math.min(FOLLOWED, size);
  let basis: Float64Array = Float64Array.from(
    { length: followed * size },
    () => next() / 2 ** 31 - 1,
  );
  for (let round = 0; round < ROUNDS; round++) {
    orthonormalise(basis, size);
    basis = timesEach(products, basis, size);
  }
  orthonormalise(basis, size);
  return basis;
}

/** Each of some vectors times a symmetric matrix. */
function timesEach(matrix: Float64Array, vectors: Float64Array, size: number): Float64Array {
  const result = new Float64Array(vectors.length);
  for (let first = 0; first < vectors.length; first += size)
    for (let i = 0; i < size; i++) {
      const by = vectors[first + i]!;
      for (let j = 0, at = i * size; j < size; j++, at++) result[first + j]! += by * matrix[at]!;
    }
  return result;
}

/** Makes vectors orthogonal to each other and of length 1 (modified Gram–Schmidt, twice for rounding). */
function orthonormalise(vectors: Float64Array, size: number): void {
  for (let first = 0; first < vectors.length; first += size) {
    const one = vectors.subarray(first, first + size);
    for (let round = 0; round < 2; round++)
      for (let before = 0; before < first; before += size) {
        const other = vectors.subarray(before, before + size);
        let along = 0;
        for (let d = 0; d < size; d++) along += one[d]! * other[d]!;
        for (let d = 0; d < size; d++) one[d]! -= along * other[d]!;
      }
    let squares = 0;
    for (const number of one) squares += number * number;
    const by = squares > 1e-24 ? 1 / Math.sqrt(squares) : 0;
    for (let d = 0; d < size; d++) one[d]! *= by;
  }
}
