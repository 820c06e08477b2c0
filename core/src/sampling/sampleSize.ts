import { normalQuantile } from '../statistics/index.js';

/**
 * How many answers must be drawn at random so that a share is known within a margin: n0 = z² p (1 − p) / e²,
 * with finite population correction n = n0 / (1 + (n0 − 1) / N), rounded up at the end only.
 *
 * @param population how many answers there are
 * @param margin half the width of the interval, as a share: .05 for ± 5 points
 * @param level confidence of the interval
 * @param share the share expected; one half needs most
 * @throws RangeError for a margin or share that is none
 * @example
 *   sampleSizeFor(1e9, 0.05) // 385 (Cochran 1977, § 4.4)
 * @see Cochran (1977), Sampling Techniques, 3rd ed.
 */
export function sampleSizeFor(
  population: number,
  margin: number,
  level = 0.95,
  share = 0.5,
): number {
  if (!(margin > 0 && margin < 1)) throw new RangeError('A margin lies between 0 and 1.');
  if (!(share > 0 && share < 1)) throw new RangeError('A share lies between 0 and 1.');
  const z = normalQuantile(1 - (1 - level) / 2);
  const endless = (z ** 2 * share * (1 - share)) / margin ** 2;
  return Math.min(population, Math.ceil(endless / (1 + (endless - 1) / population) - 1e-9));
}

/**
 * The margin of error of a share from a random sample of this size.
 *
 * @returns half the width of the interval, as a share; 0 when everybody was drawn
 * @example
 *   marginOf(384, 1e9) // 0.05
 * @see Cochran (1977), Sampling Techniques, 3rd ed.
 */
export function marginOf(size: number, population: number, level = 0.95, share = 0.5): number {
  const z = normalQuantile(1 - (1 - level) / 2);
  if (population <= 1) return 0;
  return z * Math.sqrt(((share * (1 - share)) / size) * ((population - size) / (population - 1)));
}
