import type { Gram } from './kernel.js';

/** For each of some rows its nearest others, nearest first, as places in the list of rows. */
export interface Neighbours {
  places: Int32Array[];
  likeness: Float64Array[];
}

const KEPT = 40;
const ASKED = 10;

/** The answers most like each of some, by the cosine of their numbers. */
export function findNeighbours(gram: Gram, rows: readonly number[]): Neighbours {
  const n = gram.rows.length;
  const at = rows.map((row) => gram.placeOf.get(row)!);
  const lengths = at.map((place) => Math.sqrt(gram.products[place * n + place]!) || 1);
  const found = at.map((place, i) => {
    const like = Float64Array.from(
      at,
      (other, j) => gram.products[place * n + other]! / (lengths[i]! * lengths[j]!),
    );
    const nearest = Int32Array.from(at.keys())
      .sort((a, b) => like[b]! - like[a]! || a - b)
      .filter((there) => there !== i)
      .slice(0, KEPT);
    return { nearest, like: Float64Array.from(nearest, (there) => Math.max(0, like[there]!)) };
  });
  return {
    places: found.map(({ nearest }) => nearest),
    likeness: found.map(({ like }) => like),
  };
}

/**
 * What the nearest coded answers say of each: the share of its ten nearest that have the code, counted by likeness.
 * Answers of its own fold are not asked.
 *
 * @param labels 1 or 0 by place
 * @returns a number from 0 to 1 by place
 * @see Cover & Hart (1967) Nearest neighbor pattern classification; Dudani (1976) for the weights
 */
export function askNearest(
  { places, likeness }: Neighbours,
  labels: Uint8Array,
  foldOf: Int32Array,
): Float64Array {
  return Float64Array.from(places, (near, place) => {
    let [asked, sum, of] = [0, 0, 0];
    for (let k = 0; k < near.length && asked < ASKED; k++) {
      if (foldOf[near[k]!] === foldOf[place]) continue;
      asked += 1;
      sum += likeness[place]![k]! * labels[near[k]!]!;
      of += likeness[place]![k]!;
    }
    return of === 0 ? 0 : sum / of;
  });
}
