import { evenly, randomSource } from '../statistics/index.js';
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
/** What the length of a vector that is projected is a multiple of. */
const EIGHT = 8;
/** Of more texts than this, evenly spaced ones are used. */
const MOST_TEXTS = 600;
/** Texts with a vector below which the block would tell nothing. */
const FEWEST_TEXTS = 20;

/**
 * Sentence vectors of a question's answers along the directions in which these differ most: the first right singular
 * vectors of all answers, coded or not. Each text's is scaled to the root of the block's weight. Deterministic.
 *
 * @param excluded forms of words that are taken out of a text before it is read
 * @param kept how many directions
 * @see Halko, Martinsson & Tropp (2011) Finding structure with randomness, for the subspace iteration
 */
export function sentenceBlock(
  vectors: SentenceVectors | null,
  texts: readonly string[],
  excluded: ReadonlySet<string>,
  kept = KEPT,
): SentenceBlock {
  if (!vectors) return NO_SENTENCES;
  const read = (text: string) => vectors.of(withoutWords(text, excluded));
  const learnt = evenly(texts, MOST_TEXTS)
    .map(read)
    .filter((one) => one !== null);
  if (learnt.length < FEWEST_TEXTS) return NO_SENTENCES;
  const size = Math.min(kept, vectors.size);
  const directions = leadingDirections(learnt, vectors.size).subarray(0, size * vectors.size);
  const project = projection(directions, vectors.size);
  return {
    size,
    of(text) {
      const vector = read(text);
      if (!vector) return null;
      const along = project(vector);
      let squares = 0;
      for (let d = 0; d < size; d++) squares += along[d]! * along[d]!;
      const scale = Math.sqrt(WEIGHT / Math.max(squares, 1e-12));
      const scaled = new Float32Array(size);
      for (let d = 0; d < size; d++) scaled[d] = scale * along[d]!;
      return scaled;
    },
  };
}

/** Orthonormal directions that carry the most of some vectors, one after the other. */
function leadingDirections(vectors: readonly Float32Array[], size: number): Float64Array {
  // the columns, too, must be of a length that `projection` takes
  const count = EIGHT * Math.ceil(vectors.length / EIGHT);
  const rows = new Float64Array(count * size);
  const columns = new Float64Array(size * count);
  for (const [i, vector] of vectors.entries())
    for (let d = 0; d < size; d++) rows[i * size + d] = columns[d * count + i] = vector[d]!;
  const alongRows = projection(rows, size);
  const alongColumns = projection(columns, count);
  const next = randomSource(1);
  const basis = Float64Array.from(
    { length: Math.min(FOLLOWED, size) * size },
    () => next() / 2 ** 31 - 1,
  );
  for (let round = 0; round < ROUNDS; round++) {
    orthonormalise(basis, size);
    for (let first = 0; first < basis.length; first += size)
      basis.set(
        alongColumns(alongRows(Float32Array.from(basis.subarray(first, first + size)))),
        first,
      );
  }
  orthonormalise(basis, size);
  return basis;
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
