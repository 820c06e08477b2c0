import { evenly } from '../statistics/index.js';
import { projection } from './projection.js';
import type { SentenceBlock } from './sentenceBlock.js';

/** Of more texts than this, evenly spaced ones stand for all. */
const MOST_TEXTS = 600;
const NEAREST = 10;
/** What the mean of the nearest counts, beside 1 for the text itself. */
const SHARE = 0.5;
/** Less near than this, two texts have nothing in common but what all have. */
const LEAST_NEARNESS = 0.1;
/** Nearer than this, it is the same text. */
const SAME = 1 - 1e-6;

/**
 * Vectors of texts, each drawn towards those of its nearest among the answers: what a few words leave open, similar
 * answers tell. Nothing of how they are coded goes into it. Measured: docs/notes/learning.md.
 *
 * @param texts of the answers, coded or not
 * @see Wu et al. (2019) Simplifying graph convolutional networks, for features smoothed over neighbours; Fukunaga &
 *   Hostetler (1975) The estimation of the gradient of a density function, for the shift to their mean
 */
export function drawnToNeighbours(block: SentenceBlock, texts: readonly string[]): SentenceBlock {
  const { size } = block;
  if (size === 0) return block;
  const vectors = evenly(texts, MOST_TEXTS)
    .map((text) => block.of(text))
    .filter((one) => one !== null);
  const mean = new Float64Array(size);
  for (const vector of vectors)
    for (let d = 0; d < size; d++) mean[d]! += vector[d]! / vectors.length;
  const centred = new Float64Array(vectors.length * size);
  vectors.forEach((vector, i) => centred.set(centre(vector, mean), i * size));
  const nearnessOf = projection(centred, size);
  return {
    size,
    of(text) {
      const vector = block.of(text);
      if (!vector) return null;
      const nearness = nearnessOf(centre(vector, mean));
      return towards(vector, vectors, nearest(nearness), nearness);
    },
  };
}

/** A vector less the mean, scaled to length 1. */
function centre(vector: Float32Array, mean: Float64Array): Float32Array {
  // loops: with functions for each number this took a fifth of what reading a text for models does
  const rest = new Float32Array(vector.length);
  let squares = 0;
  for (let d = 0; d < rest.length; d++) {
    rest[d] = vector[d]! - mean[d]!;
    squares += rest[d]! * rest[d]!;
  }
  const length = Math.sqrt(squares);
  if (length > 1e-9) for (let d = 0; d < rest.length; d++) rest[d]! /= length;
  return rest;
}

/** The places of the nearest, but for the text itself. */
function nearest(nearness: Float32Array): number[] {
  const places: number[] = [];
  for (let i = 0; i < nearness.length; i++) {
    const near = nearness[i]!;
    if (near < LEAST_NEARNESS || near > SAME) continue;
    const isFull = places.length === NEAREST;
    if (isFull && near <= nearness[places[NEAREST - 1]!]!) continue;
    let at = isFull ? NEAREST - 1 : places.length;
    for (; at > 0 && nearness[places[at - 1]!]! < near; at--) places[at] = places[at - 1]!;
    places[at] = i;
  }
  return places;
}

/** A vector and the mean of others, weighted by how near they are, together as long as it was. */
function towards(
  vector: Float32Array,
  others: readonly Float32Array[],
  places: readonly number[],
  nearness: Float32Array,
): Float32Array {
  if (places.length === 0) return vector;
  let all = 0;
  for (const place of places) all += nearness[place]!;
  const moved = new Float64Array(vector.length);
  moved.set(vector);
  for (const place of places) {
    const weight = (SHARE * nearness[place]!) / all;
    const other = others[place]!;
    for (let d = 0; d < moved.length; d++) moved[d]! += weight * other[d]!;
  }
  let [before, after] = [0, 0];
  for (let d = 0; d < moved.length; d++) {
    before += vector[d]! * vector[d]!;
    after += moved[d]! * moved[d]!;
  }
  const scale = Math.sqrt(before / Math.max(after, 1e-12));
  const scaled = new Float32Array(moved.length);
  for (let d = 0; d < moved.length; d++) scaled[d] = scale * moved[d]!;
  return scaled;
}
