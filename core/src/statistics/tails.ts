import { logGamma } from './fTail.js';

const SMALLEST = 1e-300;
const STEPS = 500;

/**
 * Upper tail of the gamma distribution, Q(a, x) = Γ(a, x) / Γ(a): by its series where x is
 * small, by its continued fraction (modified Lentz) elsewhere.
 *
 * @param a above 0
 * @param x 0 or more
 * @see Abramowitz & Stegun (1964) 6.5.29 and 6.5.31
 */
export function upperGamma(a: number, x: number): number {
  if (x <= 0) return 1;
  const front = Math.exp(-x + a * Math.log(x) - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < STEPS && term > sum * 1e-17; n++) {
      term *= x / (a + n);
      sum += term;
    }
    return Math.max(0, 1 - front * sum);
  }
  let b = x + 1 - a;
  let c = 1 / SMALLEST;
  let d = 1 / b;
  let fraction = d;
  for (let i = 1; i < STEPS; i++) {
    const an = -i * (i - a);
    b += 2;
    d = 1 / (an * d + b || SMALLEST);
    c = b + an / c || SMALLEST;
    const step = d * c;
    fraction *= step;
    if (Math.abs(step - 1) < 1e-16) break;
  }
  return front * fraction;
}

/** Probability of a standard normal variable at least this far from 0, on either side. */
export const normalTwoSided = (z: number): number => upperGamma(0.5, (z * z) / 2);

/**
 * Upper tail of the chi-square distribution.
 *
 * @example
 *   chiSquareTail(3.841, 1) // 0.05 (Abramowitz & Stegun 1964, table 26.8)
 */
export const chiSquareTail = (value: number, degrees: number): number =>
  upperGamma(degrees / 2, value / 2);
