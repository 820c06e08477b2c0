import { wilsonInterval, type Interval } from '../statistics/index.js';

/** Share of answers read to which a code applies, with Wilson's interval; null when none was read. */
export function shareApplying(
  applies: number,
  not: number,
): { value: number; interval: Interval } | null {
  const read = applies + not;
  if (read === 0) return null;
  return { value: applies / read, interval: wilsonInterval(applies / read, read) };
}

/**
 * Whether a spot check came out clearly worse than the model had led one to expect: all of its interval lies below
 * what was expected of accepted ones, or above what was expected to be missed among refused ones.
 */
export function isWorseThanExpected(
  side: 'accepted' | 'refused',
  found: { interval: Interval } | null,
  expected: number,
): boolean {
  if (!found) return false;
  const [low, high] = found.interval;
  return side === 'accepted' ? high < expected : low > expected;
}
