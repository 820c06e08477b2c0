import { evenly, randomSource } from '../../statistics/index.js';
import { dot } from '../solver/vectors.js';
import { formsOf } from './lexicon.js';
import { inverseFrequency } from './vocabulary.js';
import type { WordTable } from './wordTable.js';

const RANK = 50;
/** Oversampling: with more directions than are kept, fewer iterations suffice. */
const FOLLOWED = 60;
const ROUNDS = 4;
const FEWEST_TEXTS = 2;
/** Of more texts than this, evenly spaced ones are used. */
const MOST_TEXTS = 20_000;

/**
 * Word vectors made of the texts themselves (latent semantic analysis), in any language: the first right singular vectors of the texts' tf-idf (words alone, each text scaled to
 * length 1), up to a rotation that changes no product of theirs, found by subspace iteration. Deterministic.
 *
 * @param excluded forms of words that are read as if they were not there
 * @see Deerwester et al. (1990) Indexing by latent semantic analysis; Halko, Martinsson & Tropp (2011) Finding
 *   structure with randomness
 */
export function latentTable(
  texts: readonly string[],
  excluded: ReadonlySet<string>,
): Omit<WordTable, 'weight'> {
  const rows = readRows(texts, excluded);
  const words = rows.words.length;
  const size = Math.min(RANK, words);
  const followed = Math.min(FOLLOWED, words);
  let basis = randomColumns(words, followed);
  for (let round = 0; round < ROUNDS; round++) {
    orthonormalise(basis);
    basis = throughTexts(rows, basis);
  }
  orthonormalise(basis);
  const numbers = new Float64Array(words * size);
  for (let i = 0; i < size; i++)
    for (let word = 0; word < words; word++) numbers[word * size + i] = basis[i]![word]!;
  return {
    size,
    rowOf: new Map(rows.words.map((word, row) => [word, row])),
    addTo(sum, row, times) {
      for (let i = 0; i < size; i++) sum[i]! += times * numbers[row * size + i]!;
    },
  };
}

/** Texts as rows of words by tf-idf, each scaled to length 1. */
interface Rows {
  words: string[];
  texts: { word: Int32Array; value: Float64Array }[];
}

function readRows(texts: readonly string[], excluded: ReadonlySet<string>): Rows {
  const read = evenly(texts, MOST_TEXTS).map((text) => {
    const counts = new Map<string, number>();
    for (const form of formsOf(text, excluded)) counts.set(form, (counts.get(form) ?? 0) + 1);
    return counts;
  });
  const inTexts = new Map<string, number>();
  for (const counts of read)
    for (const form of counts.keys()) inTexts.set(form, (inTexts.get(form) ?? 0) + 1);
  const words = [...inTexts].flatMap(([form, n]) => (n >= FEWEST_TEXTS ? [form] : []));
  const placeOf = new Map(words.map((word, place) => [word, place]));
  return {
    words,
    texts: read.map((counts) => {
      const known = [...counts].filter(([form]) => placeOf.has(form));
      const value = Float64Array.from(
        known,
        ([form, n]) => (1 + Math.log(n)) * inverseFrequency(read.length, inTexts.get(form)!),
      );
      const length = Math.sqrt(value.reduce((sum, one) => sum + one * one, 0)) || 1;
      return {
        word: Int32Array.from(known, ([form]) => placeOf.get(form)!),
        value: value.map((one) => one / length),
      };
    }),
  };
}

function randomColumns(length: number, columns: number): Float64Array[] {
  const next = randomSource(1);
  return Array.from({ length: columns }, () =>
    Float64Array.from({ length }, () => next() / 2 ** 31 - 1),
  );
}

/** AᵀA · basis, A being the texts. */
function throughTexts({ words, texts }: Rows, basis: readonly Float64Array[]): Float64Array[] {
  const columns = basis.length;
  // row-major by word, so that the numbers of a word are adjacent
  const from = new Float64Array(words.length * columns);
  const into = new Float64Array(words.length * columns);
  basis.forEach((column, i) => column.forEach((value, w) => (from[w * columns + i] = value)));
  const text = new Float64Array(columns);
  for (const { word, value } of texts) {
    text.fill(0);
    for (let k = 0; k < word.length; k++)
      for (let i = 0, at = word[k]! * columns; i < columns; i++, at++)
        text[i]! += value[k]! * from[at]!;
    for (let k = 0; k < word.length; k++)
      for (let i = 0, at = word[k]! * columns; i < columns; i++, at++)
        into[at]! += value[k]! * text[i]!;
  }
  return basis.map((_, i) =>
    Float64Array.from({ length: words.length }, (_, w) => into[w * columns + i]!),
  );
}

/** Makes columns orthogonal to each other and of length 1, one after another (modified Gram–Schmidt). */
function orthonormalise(columns: readonly Float64Array[]): void {
  columns.forEach((column, i) => {
    // twice: once leaves rounding errors where columns are nearly parallel
    for (const before of [...columns.slice(0, i), ...columns.slice(0, i)]) {
      const along = dot(column, before);
      for (let w = 0; w < column.length; w++) column[w]! -= along * before[w]!;
    }
    const length = Math.sqrt(dot(column, column));
    for (let w = 0; w < column.length; w++) column[w] = length > 1e-12 ? column[w]! / length : 0;
  });
}
