import type { SentenceVectors } from './sentenceBlock.js';

/** Texts with a vector below which their mean would tell more of themselves than of what is common to all. */
const FEWEST_TEXTS = 20;

/**
 * Vectors of some texts less their mean, scaled to length 1: what all answers to a question have in common says nothing
 * about which of them are alike.
 *
 * @returns null where too few of the texts have a vector
 * @see Mu & Viswanath (2018) All-but-the-top, for taking off the mean
 */
export function centredVectors(
  texts: readonly string[],
  { size, of }: Pick<SentenceVectors, 'size' | 'of'>,
): SentenceVectors | null {
  const mean = new Float64Array(size);
  let count = 0;
  for (const text of texts) {
    const vector = of(text);
    if (!vector) continue;
    count += 1;
    for (let d = 0; d < size; d++) mean[d]! += vector[d]!;
  }
  if (count < FEWEST_TEXTS) return null;
  for (let d = 0; d < size; d++) mean[d]! /= count;
  return {
    size,
    of(text) {
      const vector = of(text);
      if (!vector) return null;
      const centred = new Float32Array(size);
      let squares = 0;
      for (let d = 0; d < size; d++) {
        const rest = vector[d]! - mean[d]!;
        centred[d] = rest;
        squares += rest * rest;
      }
      const length = Math.sqrt(squares);
      if (length < 1e-9) return null;
      for (let d = 0; d < size; d++) centred[d]! /= length;
      return centred;
    },
  };
}
