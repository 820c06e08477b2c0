import { normalQuantile } from './normal.js';
import type { Interval } from './wilson.js';

/**
 * The difference estimator of a share: what a model says of all, put right by how far it was off on a simple random
 * sample that it was not fitted to: mean_N(p) + mean_s(y − p), with variance (1 − n/N) · s²(y − p) / n and a normal
 * interval, clipped to 0 … 1.
 *
 * @param predicted one an answer, all N of them
 * @param sampled positions of the sample in `predicted`
 * @param truth 0 or 1 for each of the sample
 * @returns null with fewer than two in the sample
 * @see Särndal, Swensson & Wretman (1992) Model assisted survey sampling; Angelopoulos et al. (2023)
 *   Prediction-powered inference
 */
export function differenceEstimate(
  predicted: ArrayLike<number>,
  sampled: readonly number[],
  truth: ArrayLike<number>,
  level = 0.95,
): { value: number; standardError: number; interval: Interval } | null {
  const n = sampled.length;
  if (n < 2) return null;
  let mean = 0;
  for (let i = 0; i < predicted.length; i++) mean += predicted[i]!;
  mean /= predicted.length;
  const errors = sampled.map((i, k) => truth[k]! - predicted[i]!);
  const off = errors.reduce((sum, error) => sum + error, 0) / n;
  const spread = errors.reduce((sum, error) => sum + (error - off) ** 2, 0) / (n - 1);
  const standardError = Math.sqrt(((1 - n / predicted.length) * spread) / n);
  const clip = (value: number) => Math.min(1, Math.max(0, value));
  const half = normalQuantile(0.5 + level / 2) * standardError;
  const value = mean + off;
  return {
    value: clip(value),
    standardError,
    interval: [clip(value - half), clip(value + half)],
  };
}
