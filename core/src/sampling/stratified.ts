import { simpleRandomSample } from './simpleRandom.js';

/**
 * Distributes a sample among strata in proportion to their sizes by largest remainders (Hamilton's method); ties go
 * to the earlier stratum.
 *
 * @param sizes how many there are in each stratum
 * @param size how many are to be drawn in all
 * @returns how many to draw from each
 * @throws RangeError when more are to be drawn than there are
 * @example
 *   allocate([50, 30, 20], 7) // [4, 2, 1]
 */
export function allocate(sizes: readonly number[], size: number): number[] {
  const population = sizes.reduce((sum, one) => sum + one, 0);
  if (size > population)
    throw new RangeError(`A sample of ${size} cannot be drawn from ${population} answers.`);
  if (population === 0) return sizes.map(() => 0);
  const quotas = sizes.map((one) => (one * size) / population);
  const drawn = quotas.map(Math.floor);
  const left = size - drawn.reduce((sum, one) => sum + one, 0);
  const byRemainder = quotas
    .map((quota, stratum) => ({ stratum, remainder: quota - Math.floor(quota) }))
    .sort((x, y) => y.remainder - x.remainder || x.stratum - y.stratum);
  for (const { stratum } of byRemainder.slice(0, left)) drawn[stratum]! += 1;
  return drawn;
}

/**
 * A random sample in which every stratum has its proportion.
 *
 * @param strata the stratum of each, by any name
 * @param seed the same seed draws the same sample
 * @returns indices into `strata`, in ascending order
 */
export function stratifiedSample(strata: readonly string[], size: number, seed: number): number[] {
  const members = new Map<string, number[]>();
  for (const [i, stratum] of strata.entries()) {
    const its = members.get(stratum);
    if (its) its.push(i);
    else members.set(stratum, [i]);
  }
  const ordered = [...members].sort(([x], [y]) => (x < y ? -1 : 1));
  const counts = allocate(
    ordered.map(([, indices]) => indices.length),
    size,
  );
  return ordered
    .flatMap(([, indices], s) =>
      simpleRandomSample(indices.length, counts[s]!, seed + s).map((i) => indices[i]!),
    )
    .sort((x, y) => x - y);
}
