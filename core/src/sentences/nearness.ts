import { dotProduct } from './dotProduct.js';

/**
 * How near texts are in meaning to what codes are about: the cosine of a text's vector with the sum of a code's (its
 * name's and its definition's), less the text's mean over all codes, so that a text that is near to everything is near
 * to nothing; of one code alone the cosine. Nothing has to be coded for it, and nothing is learnt.
 *
 * @param codes vectors of each code's texts; null for a text without one
 * @returns by code; −∞ for a code without a vector
 * @example
 *   [...nearnessTo([[Float32Array.of(1, 0)], [Float32Array.of(0, 1)]])(Float32Array.of(1, 0))] // [0.5, -0.5]
 */
export function nearnessTo(
  codes: readonly (readonly (Float32Array | null)[])[],
): (text: Float32Array) => Float64Array {
  const directions = codes.map(sumOf);
  const known = directions.filter((one) => one !== null).length;
  return (text) => {
    const cosines = Float64Array.from(directions, (one) => (one ? dotProduct(one, text) : 0));
    // one code alone has no others that a text could be nearer to
    const mean = known > 1 ? cosines.reduce((sum, one) => sum + one, 0) / known : 0;
    return cosines.map((one, c) => (directions[c] ? one - mean : -Infinity));
  };
}

/** The sum of some vectors, scaled to length 1; null without any. */
function sumOf(vectors: readonly (Float32Array | null)[]): Float64Array | null {
  const there = vectors.filter((one) => one !== null);
  if (there.length === 0) return null;
  const sum = new Float64Array(there[0]!.length);
  for (const vector of there) for (let d = 0; d < sum.length; d++) sum[d]! += vector[d]!;
  const length = Math.sqrt(sum.reduce((squares, one) => squares + one * one, 0)) || 1;
  return sum.map((one) => one / length);
}
