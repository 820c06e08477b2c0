import { normalQuantile } from './normal.js';

export type Interval = [low: number, high: number];

/**
 * Wilson's score interval of a share.
 *
 * @param share observed share, 0 to 1
 * @param n base that it is out of; the effective base when weighted (need not be whole)
 * @param level confidence, 0 to 1
 * @returns bounds within [0, 1]; [0, 1] when the base is empty, the share itself when it is without end
 * @example
 *   wilsonInterval(81 / 263, 263) // [0.2553, 0.3662] (Newcombe 1998, table I)
 * @see Wilson (1927) Probable inference, the law of succession, and statistical inference
 */
export function wilsonInterval(share: number, n: number, level = 0.95): Interval {
  return scoreInterval(share, n, normalQuantile(0.5 + level / 2));
}

/**
 * The same with another quantile than that of the normal distribution.
 *
 * @param z how many standard errors the bounds are from the share
 */
export function scoreInterval(share: number, n: number, z: number): Interval {
  if (!(n > 0)) return [0, 1];
  if (n === Infinity) return [share, share];
  const z2 = z * z;
  const centre = share + z2 / (2 * n);
  const half = z * Math.sqrt((share * (1 - share)) / n + z2 / (4 * n * n));
  const scale = 1 + z2 / n;
  return [
    share === 0 ? 0 : Math.max(0, (centre - half) / scale),
    share === 1 ? 1 : Math.min(1, (centre + half) / scale),
  ];
}
