import { randomSource, shuffle } from '../statistics/index.js';

/**
 * A simple random sample without replacement.
 *
 * @param population how many there are
 * @param size how many to draw
 * @param seed the same seed draws the same sample
 * @returns indices 0 … population − 1, in ascending order
 * @throws RangeError when more are to be drawn than there are
 */
export function simpleRandomSample(population: number, size: number, seed: number): number[] {
  if (size > population)
    throw new RangeError(`A sample of ${size} cannot be drawn from ${population} answers.`);
  const order = Array.from({ length: population }, (_, i) => i);
  return shuffle(order, randomSource(seed))
    .slice(0, size)
    .sort((x, y) => x - y);
}
