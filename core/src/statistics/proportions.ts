import { normalTwoSided } from './tails.js';
import { wilsonInterval, type Interval } from './wilson.js';

/** A share of a group: `n` is its base; an interval takes the effective one when weighted. */
export interface Share {
  share: number;
  n: number;
}

/** Which test a probability is of; the exact one where an expected count is below 5. */
export interface Compared {
  test: 'z' | 'fisher';
  /** z; null for the exact test, which has no statistic. */
  statistic: number | null;
  p: number;
}

const fewestExpected = 5;

/**
 * Tests whether the shares of two groups that have nobody in common differ: pooled two-proportion z test, or Fisher's
 * exact test where an expected count is below 5.
 *
 * @see Fisher (1935); the pooled z test as in Fleiss, Levin & Paik (2003) Statistical methods for rates and proportions
 */
export function compareShares(one: Share, other: Share): Compared {
  const z = pooledZ(one, other);
  if (z !== null) return { test: 'z', statistic: z, p: normalTwoSided(z) };
  const [x, y] = [one, other].map(({ share, n }) => Math.round(share * n));
  return { test: 'fisher', statistic: null, p: fisherExact(x!, one.n, y!, other.n) };
}

/** The pooled two-proportion z; null where an expected count is below 5. */
export function pooledZ(one: Share, other: Share): number | null {
  const pooled = (one.share * one.n + other.share * other.n) / (one.n + other.n);
  const fewest = Math.min(one.n, other.n) * Math.min(pooled, 1 - pooled);
  if (fewest < fewestExpected) return null;
  const error = Math.sqrt(pooled * (1 - pooled) * (1 / one.n + 1 / other.n));
  return (one.share - other.share) / error;
}

/**
 * Hybrid score interval of a difference of two independent shares.
 *
 * @see Newcombe (1998), method 10
 *
 * @example
 *   newcombeInterval({ share: 56 / 70, n: 70 }, { share: 48 / 80, n: 80 }) // [0.0524, 0.3339] (Newcombe 1998, table II)
 */
export function newcombeInterval(one: Share, other: Share, level = 0.95): Interval {
  const [low1, high1] = wilsonInterval(one.share, one.n, level);
  const [low2, high2] = wilsonInterval(other.share, other.n, level);
  const difference = one.share - other.share;
  const bound = (a: number, b: number) => Math.sqrt(a * a + b * b);
  return [
    difference - bound(one.share - low1, high2 - other.share),
    difference + bound(high1 - one.share, other.share - low2),
  ];
}

/**
 * Fisher's exact test, two-sided: the probability of every table with these margins that is no likelier than this one.
 *
 * @param x of n, and y of m
 * @example
 *   fisherExact(3, 4, 1, 4) // 0.4857 (Fisher 1935, the lady tasting tea)
 * @see Fisher (1935) The design of experiments
 */
export function fisherExact(x: number, n: number, y: number, m: number): number {
  const total = x + y;
  const lowest = Math.max(0, total - m);
  const highest = Math.min(total, n);
  const logs = logFactorials(n + m);
  const choose = (a: number, b: number) => logs[a]! - logs[b]! - logs[a - b]!;
  const probability = (k: number) =>
    Math.exp(choose(n, k) + choose(m, total - k) - choose(n + m, total));
  // tables that are as likely differ in the last digits
  const limit = probability(x) * (1 + 1e-7);
  let p = 0;
  for (let k = lowest; k <= highest; k++) {
    const one = probability(k);
    if (one <= limit) p += one;
  }
  return Math.min(1, p);
}

let known = new Float64Array(1);
/** ln k! for k = 0 … most; computed once, since a table asks for them cell by cell. */
function logFactorials(most: number): Float64Array {
  if (known.length > most) return known;
  const logs = new Float64Array(2 * most + 1);
  for (let i = 2; i < logs.length; i++) logs[i] = logs[i - 1]! + Math.log(i);
  return (known = logs);
}
