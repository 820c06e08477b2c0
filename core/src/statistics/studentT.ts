import { fTail } from './fTail.js';
import { normalQuantile } from './normal.js';

const STEPS = 60;

/**
 * Quantile of Student's t distribution, by bisection of its tail, that of F with 1 and `degrees` degrees of freedom.
 *
 * @param p probability below it, above 0.5 and below 1
 * @param degrees of freedom, above 0, whole or not; Infinity for the normal distribution
 * @example
 *   tQuantile(0.975, 10) // 2.228 (Abramowitz & Stegun 1964, table 26.10)
 * @see Student (1908) The probable error of a mean; Abramowitz & Stegun (1964) 26.7.1
 */
export function tQuantile(p: number, degrees: number): number {
  let low = normalQuantile(p);
  if (degrees === Infinity) return low;
  const tail = 2 * (1 - p);
  let high = 2 * low;
  while (fTail(high * high, 1, degrees) > tail) high *= 2;
  for (let step = 0; step < STEPS && high - low > 1e-12 * high; step++) {
    const middle = (low + high) / 2;
    if (fTail(middle * middle, 1, degrees) > tail) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
