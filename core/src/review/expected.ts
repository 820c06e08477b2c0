import type { Interval } from '../statistics/index.js';
import type { Unseen } from './measured.js';

/** What accepting everything above a threshold is expected to bring. */
export interface Expectation {
  /** Open suggestions above the line. */
  above: number;
  /** Expected share of these that are right (precision), with a 95% interval; null when none is above. */
  shareRight: { value: number; interval: Interval } | null;
  /** Expected share of all that mention the code which will then be found (recall). */
  shareFound: number | null;
}

/** Running sums over suggestions in order of probability, so that moving the threshold costs nothing. */
export interface Outlook {
  /** Probabilities of the open suggestions, highest first. */
  probabilities: Float64Array;
  /** Σp, Σp(1−p) and Σp(1−p)·logit p of the k most likely, by k. */
  sums: Float64Array;
  variances: Float64Array;
  tilts: Float64Array;
  /** How far the calibration itself is to be doubted. */
  doubt: Doubt;
  /** Mentions that are found already: those that somebody read, and of the others as many as are expected to be right. */
  found: number;
  /** Mentions expected among what is found nowhere: refused unread, or too improbable to be suggested. */
  missed: number;
}

/** Covariance of the two numbers of the calibration, on the scale of what it says: logit p → slope · logit p + shift. */
interface Doubt {
  slope: number;
  both: number;
  shift: number;
}

/** Beyond this, what is said is rounded and its logit unsure. */
const MOST_CERTAIN = 1e-4;
const logit = (p: number) => {
  const inside = Math.min(1 - MOST_CERTAIN, Math.max(MOST_CERTAIN, p));
  return Math.log(inside / (1 - inside));
};

/** The inverse of the information that the settled answers give of a logistic calibration, its slope held near 1. */
function doubtOf({ yes, no }: Unseen): Doubt {
  let [slope, both, shift] = [1, 0, 1e-9];
  for (const p of [...yes, ...no]) {
    const weight = p * (1 - p);
    const z = logit(p);
    slope += weight * z * z;
    both += weight * z;
    shift += weight;
  }
  const determinant = slope * shift - both * both;
  return { slope: shift / determinant, both: -both / determinant, shift: slope / determinant };
}

/**
 * Prepares the figures of the line from calibrated probabilities, which need not be in order.
 *
 * @param unseen what the model predicted for settled answers that it had not seen: what it is calibrated on
 */
export function outlookOf(
  open: readonly number[],
  { found, missed }: Pick<Outlook, 'found' | 'missed'>,
  unseen: Unseen,
): Outlook {
  const probabilities = Float64Array.from(open).sort().reverse();
  const sums = new Float64Array(open.length + 1);
  const variances = new Float64Array(open.length + 1);
  const tilts = new Float64Array(open.length + 1);
  probabilities.forEach((p, i) => {
    sums[i + 1] = sums[i]! + p;
    variances[i + 1] = variances[i]! + p * (1 - p);
    tilts[i + 1] = tilts[i]! + p * (1 - p) * logit(p);
  });
  return { probabilities, sums, variances, tilts, found, missed, doubt: doubtOf(unseen) };
}

/** How many open suggestions have a probability of at least `threshold`. */
export function countAbove({ probabilities }: Outlook, threshold: number): number {
  let low = 0;
  let high = probabilities.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (probabilities[middle]! >= threshold) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Variance of how many of the k most likely are right: by chance, and by the error of the calibration. */
function varianceOfRight({ variances, tilts, doubt }: Outlook, above: number): number {
  const chance = variances[above]!;
  const tilt = tilts[above]!;
  return (
    chance +
    doubt.slope * tilt * tilt +
    2 * doubt.both * tilt * chance +
    doubt.shift * chance * chance
  );
}

/**
 * Expected precision and recall above a line. Each suggestion is right with its own calibrated probability, so the
 * number right is Poisson-binomial with mean Σp and variance Σp(1−p); the calibration, fitted to few settled answers,
 * adds its own variance by the delta method. The interval is normal, clipped to [0, 1].
 *
 * @see Oehlert (1992) A note on the delta method
 */
export function expectAbove(outlook: Outlook, threshold: number): Expectation {
  const above = countAbove(outlook, threshold);
  const right = outlook.sums[above]!;
  const all = outlook.found + outlook.sums.at(-1)! + outlook.missed;
  const half = above > 0 ? (1.959964 * Math.sqrt(varianceOfRight(outlook, above))) / above : 0;
  return {
    above,
    shareRight:
      above > 0
        ? {
            value: right / above,
            interval: [Math.max(0, right / above - half), Math.min(1, right / above + half)],
          }
        : null,
    shareFound: all > 0 ? (outlook.found + right) / all : null,
  };
}

/**
 * The lowest line above which at least a wanted share is expected to be right.
 *
 * @returns null when even the most likely are not expected to be
 */
export function thresholdForPrecision(
  { probabilities, sums }: Outlook,
  wanted: number,
): number | null {
  for (let above = probabilities.length; above > 0; above--) {
    // suggestions of one probability lie on the same side of any line
    if (probabilities[above] === probabilities[above - 1]) continue;
    if (sums[above]! >= wanted * above - 1e-12) return probabilities[above - 1]!;
  }
  return null;
}

/** What is decided of a code's suggestions, and what is expected among those that nobody read. */
export interface DecidedSoFar {
  /** Answers known to mention the code: by hand, or read and accepted. */
  known: number;
  /** Accepted and refused in bulk and read by nobody: how many, and the sum of their probabilities. */
  acceptedUnread: { count: number; expected: number };
  refusedUnread: { count: number; expected: number };
  /** Expected mentions among what was too improbable to be suggested. */
  unsuggested: number;
  /** The share to which the code applied when a spot check read some of each side; null until one did. */
  checked: { accepted: number | null; refused: number | null };
}

/**
 * How much is found and missed by what was decided, as recall counts it. What nobody read counts with its calibrated
 * probability, until a spot check has measured it: refusing unread suggestions finds nothing.
 */
export function foundAndMissed({
  known,
  acceptedUnread,
  refusedUnread,
  unsuggested,
  checked,
}: DecidedSoFar): Pick<Outlook, 'found' | 'missed'> {
  const among = ({ count, expected }: { count: number; expected: number }, share: number | null) =>
    share === null ? expected : share * count;
  return {
    found: known + among(acceptedUnread, checked.accepted),
    missed: unsuggested + among(refusedUnread, checked.refused),
  };
}
