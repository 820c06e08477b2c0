import { centredVectors, sentenceBlock, type SentenceVectors } from '../sentences/index.js';
import { tfidfRows } from '../similarity/index.js';
import { drawnFor } from '../statistics/index.js';

/** Texts as vectors of length 1, one after the other; all zero for a text that nothing is known of. */
export interface DenseRows {
  size: number;
  count: number;
  values: Float32Array;
  /** Whether they are of meaning; of words otherwise. */
  isMeaning: boolean;
}

const NO_WORDS: ReadonlySet<string> = new Set();
/** As many directions as answers are ordered by (docs/notes/learning.md). */
const DIRECTIONS = 24;
/** Numbers that words are folded into: with more, fewer words share one. */
const FOLDED = 256;

/**
 * Texts as short vectors along the directions in which they differ most: of their meanings or, where nothing is read for
 * meaning, of their words by rarity, folded by signed hashing.
 *
 * @param others texts beside which a few of them can be told apart: they get no rows
 * @see Weinberger, Dasgupta, Langford, Smola & Attenberg (2009) Feature hashing for large scale multitask learning;
 *   Deerwester et al. (1990) Indexing by latent semantic analysis, for the directions of words
 */
export function denseRows(
  texts: readonly string[],
  vectors: SentenceVectors | null,
  others: readonly string[] = [],
): DenseRows {
  const all = [...texts, ...others];
  const read = (of: SentenceVectors) =>
    centredVectors(all, sentenceBlock(of, all, NO_WORDS, DIRECTIONS));
  const meaning = vectors && read(vectors);
  if (meaning) return { ...rowsOf(texts, meaning), isMeaning: true };
  const words = foldedWords(all);
  // of fewer texts no directions can be told
  return { ...rowsOf(texts, read(words) ?? words), isMeaning: false };
}

function rowsOf(
  texts: readonly string[],
  { size, of }: SentenceVectors,
): Omit<DenseRows, 'isMeaning'> {
  const values = new Float32Array(texts.length * size);
  for (const [t, text] of texts.entries()) {
    const vector = of(text);
    if (vector) values.set(vector, t * size);
  }
  return { size, count: texts.length, values };
}

/** Texts by their words, each word's weight added to or taken from one of the numbers. */
function foldedWords(texts: readonly string[]): SentenceVectors {
  const { start, column, value } = tfidfRows(texts);
  const placeOf = new Map(texts.map((text, t) => [text, t]));
  return {
    size: FOLDED,
    of(text) {
      const t = placeOf.get(text)!;
      const row = new Float32Array(FOLDED);
      for (let e = start[t]!; e < start[t + 1]!; e++) {
        const hash = drawnFor(column[e]!, 0);
        row[hash % FOLDED]! += (hash & 0x10000 ? 1 : -1) * value[e]!;
      }
      normalise(row);
      return row.some((one) => one !== 0) ? row : null;
    },
  };
}

/** Scales a vector to length 1; one of zeros stays. */
export function normalise(vector: Float32Array): void {
  let squares = 0;
  for (const one of vector) squares += one * one;
  const length = Math.sqrt(squares);
  if (length > 1e-9) for (let d = 0; d < vector.length; d++) vector[d]! /= length;
}

/** The cosine of row i of some rows with row j of others, both of length 1. */
export function cosineOf(
  rows: Pick<DenseRows, 'size' | 'values'>,
  i: number,
  others: Float32Array,
  j: number,
): number {
  const { size, values } = rows;
  let sum = 0;
  for (let d = 0, a = i * size, b = j * size; d < size; d++) sum += values[a + d]! * others[b + d]!;
  return sum;
}
