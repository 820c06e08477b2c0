import { nearnessTo, unpackVector } from '@yellow-thread/core/sentences';
import { sentenceEncoder } from './encoder.js';
import type { SharedVectors } from './storedVectors.js';

/** Texts that are kept for each code, nearest first: some of them are settled, or have the code. */
export const MOST_NEAREST = 500;
/** By code, the places of texts among the vectors, and how near they are. */
export type NearestTexts = { places: Int32Array; nearness: Float64Array }[];

/**
 * The texts nearest to each code, on a thread.
 *
 * @param codes what the codebook says of each: texts without which nothing is near
 */
export async function nearestTexts({
  vectors: { count, packed },
  codes,
}: {
  vectors: SharedVectors;
  codes: readonly (readonly string[])[];
}): Promise<NearestTexts> {
  const encoder = await sentenceEncoder();
  const nearness = nearnessTo(codes.map((texts) => encoder?.encode(texts) ?? []));
  const bytes = packed.length / count;
  const byCode = codes.map(() => new Float64Array(count));
  for (let place = 0; place < count; place++) {
    const vector = unpackVector(packed.subarray(place * bytes, (place + 1) * bytes));
    nearness(vector).forEach((near, c) => (byCode[c]![place] = near));
  }
  return byCode.map((near) => {
    const places = Int32Array.from(near.keys())
      .sort((a, b) => near[b]! - near[a]! || a - b)
      .subarray(0, MOST_NEAREST)
      .filter((place) => near[place]! > 0);
    return { places, nearness: Float64Array.from(places, (place) => near[place]!) };
  });
}
