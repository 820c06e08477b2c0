import { centredVectors, sentenceBlock, type SentenceVectors } from '../sentences/index.js';
import { tfidfRows, type TfidfRows } from './tfidfRows.js';

const NO_WORDS: ReadonlySet<string> = new Set();
/** With half of the directions that models take, the order is as good (docs/notes/learning.md). */
const DIRECTIONS = 24;

/**
 * Texts as vectors of their words and, where they were read for meaning, of their meaning along the directions in which
 * they differ most; either part has length 1. Measured: docs/notes/learning.md.
 */
export function similarityRows(
  texts: readonly string[],
  vectors: SentenceVectors | null,
): TfidfRows {
  const words = tfidfRows(texts);
  const meaning = centredVectors(texts, sentenceBlock(vectors, texts, NO_WORDS, DIRECTIONS));
  if (!meaning) return words;
  const { columns } = words;
  const most = words.column.length + texts.length * meaning.size;
  const start = new Int32Array(texts.length + 1);
  const column = new Int32Array(most);
  const value = new Float64Array(most);
  let at = 0;
  for (const [t, text] of texts.entries()) {
    for (let e = words.start[t]!; e < words.start[t + 1]!; e++) {
      column[at] = words.column[e]!;
      value[at++] = words.value[e]!;
    }
    const vector = meaning.of(text);
    if (vector)
      for (let d = 0; d < meaning.size; d++) {
        column[at] = columns + d;
        value[at++] = vector[d]!;
      }
    start[t + 1] = at;
  }
  return {
    start,
    column: column.subarray(0, at),
    value: value.subarray(0, at),
    columns: columns + meaning.size,
  };
}
