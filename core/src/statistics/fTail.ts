const SMALLEST = 1e-300;
const STEPS = 1000;

/** ln Γ(x) for x > 0: Stirling's series, after stepping up to where it converges. @see Abramowitz & Stegun (1964) 6.1.41 */
export function logGamma(x: number): number {
  let shift = 0;
  let at = x;
  for (; at < 10; at++) shift += Math.log(at);
  const r = 1 / (at * at);
  const series =
    (1 / 12 -
      r * (1 / 360 - r * (1 / 1260 - r * (1 / 1680 - r * (1 / 1188 - (r * 691) / 360360))))) /
    at;
  return (at - 0.5) * Math.log(at) - at + Math.log(2 * Math.PI) / 2 + series - shift;
}

/**
 * Regularised incomplete beta function I_x(a, b), by its continued fraction (modified Lentz).
 *
 * @param x 0 to 1
 * @param a above 0
 * @param b above 0
 * @see Abramowitz & Stegun (1964) 26.5.8
 */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  // the fraction converges fast on this side only
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(
    logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x),
  );
  let c = 1;
  let d = 1 / (1 - ((a + b) * x) / (a + 1) || SMALLEST);
  let fraction = d;
  for (let m = 1; m < STEPS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / (1 + even * d || SMALLEST);
    c = 1 + even / c || SMALLEST;
    fraction *= c * d;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / (1 + odd * d || SMALLEST);
    c = 1 + odd / c || SMALLEST;
    fraction *= c * d;
    if (Math.abs(c * d - 1) < 1e-15) break;
  }
  return (front * fraction) / a;
}

/**
 * Upper tail of the F distribution; degrees of freedom may be fractional.
 *
 * @example
 *   fTail(4.96, 1, 10) // 0.05 (Abramowitz & Stegun 1964, table 26.9)
 */
export const fTail = (value: number, degrees: number, others: number): number =>
  value <= 0 ? 1 : incompleteBeta(others / (others + degrees * value), others / 2, degrees / 2);
