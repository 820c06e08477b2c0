import { normalQuantile, type Interval } from '../statistics/index.js';

/** Answers to which a code was given by both coders, by one of them alone, or by neither. */
export interface FourCells {
  both: number;
  first: number;
  second: number;
  neither: number;
}

export interface Kappa {
  /** How many were judged by both. */
  n: number;
  /** Share on which both agree, 0 to 1. */
  agreed: number;
  /** Cohen's kappa, −1 to 1; null where chance alone would agree on everything, so that it is not defined. */
  kappa: number | null;
  /** Its large-sample standard error; null with the kappa. */
  error: number | null;
  /** Null with the kappa, and where the error is zero: that is no measure of certainty. */
  interval: Interval | null;
}

/**
 * Agreement of two coders beyond chance.
 *
 * @param table counts, k × k: rows are what the first one said, columns what the second one did
 * @param level of the interval, 0 to 1
 * @example
 *   cohenKappa([[20, 5], [10, 15]]).kappa // 0.4
 * @see Cohen (1960) A coefficient of agreement for nominal scales; the error as in Fleiss, Cohen & Everitt (1969)
 *   Large sample standard errors of kappa and weighted kappa
 */
export function cohenKappa(table: readonly (readonly number[])[], level = 0.95): Kappa {
  const n = table.flat().reduce((sum, count) => sum + count, 0);
  const shares = table.map((row) => row.map((count) => count / n));
  const firsts = shares.map((row) => row.reduce((sum, share) => sum + share, 0));
  const seconds = shares.map((_, j) => shares.reduce((sum, row) => sum + row[j]!, 0));
  const agreed = table.reduce((sum, row, i) => sum + row[i]!, 0) / n;
  const byChance = firsts.reduce((sum, share, i) => sum + share * seconds[i]!, 0);
  if (n === 0 || 1 - byChance < 1e-12)
    return { n, agreed: n === 0 ? 0 : agreed, kappa: null, error: null, interval: null };
  const kappa = (agreed - byChance) / (1 - byChance);
  const rest = 1 - kappa;
  let variance = -((kappa - byChance * rest) ** 2);
  shares.forEach((row, i) =>
    row.forEach((share, j) => {
      variance +=
        i === j
          ? share * (1 - (firsts[i]! + seconds[i]!) * rest) ** 2
          : share * (rest * (seconds[i]! + firsts[j]!)) ** 2;
    }),
  );
  // rounding leaves a zero a little above or below it
  const error = variance < 1e-15 ? 0 : Math.sqrt(variance / n) / (1 - byChance);
  const width = normalQuantile((1 + level) / 2) * error;
  const interval: Interval | null = error === 0 ? null : within(kappa, width);
  return { n, agreed, kappa, error, interval };
}

/** An interval of a coefficient that cannot lie beyond −1 or 1. */
export const within = (coefficient: number, width: number): Interval => [
  Math.max(-1, coefficient - width),
  Math.min(1, coefficient + width),
];
