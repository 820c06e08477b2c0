import type { Interval } from '../statistics/index.js';

/** What accepting everything above a line is expected to bring. */
export interface Expectation {
  /** Open suggestions above the line. */
  above: number;
  /** Expected share of these that are right (precision), with a 95% interval; null when none is above. */
  shareRight: { value: number; interval: Interval } | null;
  /** Expected share of all that mention the code which will then be found (recall). */
  shareFound: number | null;
}

/** Running sums over suggestions in order of probability, so that moving the line costs nothing. */
export interface Outlook {
  /** Probabilities of the open suggestions, highest first. */
  probabilities: Float64Array;
  sums: Float64Array;
  variances: Float64Array;
  /** Already known to mention the code: by hand or accepted. */
  known: number;
  /** Expected mentions among what was too improbable to be suggested. */
  unsuggested: number;
}

/** Prepares the figures of the line from calibrated probabilities, which need not be in order. */
export function outlookOf(open: readonly number[], known: number, unsuggested: number): Outlook {
  const probabilities = Float64Array.from(open).sort().reverse();
  const sums = new Float64Array(open.length + 1);
  const variances = new Float64Array(open.length + 1);
  probabilities.forEach((p, i) => {
    sums[i + 1] = sums[i]! + p;
    variances[i + 1] = variances[i]! + p * (1 - p);
  });
  return { probabilities, sums, variances, known, unsuggested };
}

/** How many open suggestions have a probability of at least `line`. */
export function countAbove({ probabilities }: Outlook, line: number): number {
  let low = 0;
  let high = probabilities.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (probabilities[middle]! >= line) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * Expected precision and recall above a line. Each suggestion is right with its own calibrated
 * probability, so the number right is Poisson-binomial: its mean is Σp, its variance Σp(1−p); the
 * interval is normal, clipped to [0, 1].
 */
export function expectAbove(outlook: Outlook, line: number): Expectation {
  const above = countAbove(outlook, line);
  const right = outlook.sums[above]!;
  const all = outlook.known + outlook.sums.at(-1)! + outlook.unsuggested;
  const half = above > 0 ? (1.959964 * Math.sqrt(outlook.variances[above]!)) / above : 0;
  return {
    above,
    shareRight:
      above > 0
        ? {
            value: right / above,
            interval: [Math.max(0, right / above - half), Math.min(1, right / above + half)],
          }
        : null,
    shareFound: all > 0 ? (outlook.known + right) / all : null,
  };
}

/**
 * The lowest line above which at least a wanted share is expected to be right.
 *
 * @returns null when even the likeliest are not expected to be
 */
export function lineForShareRight({ probabilities, sums }: Outlook, wanted: number): number | null {
  for (let above = probabilities.length; above > 0; above--) {
    // suggestions of one probability lie on the same side of any line
    if (probabilities[above] === probabilities[above - 1]) continue;
    if (sums[above]! >= wanted * above - 1e-12) return probabilities[above - 1]!;
  }
  return null;
}
