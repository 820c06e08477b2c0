import { normalQuantile } from './normal.js';
import type { Interval } from './wilson.js';

/**
 * The difference estimator of a share: what a model says of all, put right by how far it was off on a simple random
 * sample that it was not fitted to: mean_N(p) + mean_s(y − p), with variance (1 − n/N) · s²(y − p) / n and a normal
 * interval, clipped to 0 … 1. Where something of the model was fitted to the sample all the same, s² has as many degrees
 * of freedom less. With weights the means are weighted ones, and the variance is that of a ratio of
 * weighted sums, by its residuals.
 *
 * @param predicted one an answer, all N of them
 * @param sampled positions of the sample in `predicted`
 * @param truth 0 or 1 for each of the sample
 * @param weights one an answer; null for equal ones
 * @param parameters how many were fitted to the sample, with the mean error
 * @returns null with fewer than two in the sample, or where its weights are all 0
 * @see Särndal, Swensson & Wretman (1992) Model assisted survey sampling, 6.3 and 5.7; Angelopoulos et al. (2023)
 *   Prediction-powered inference
 */
export function differenceEstimate(
  predicted: ArrayLike<number>,
  sampled: readonly number[],
  truth: ArrayLike<number>,
  {
    weights = null,
    level = 0.95,
    parameters = 1,
  }: { weights?: ArrayLike<number> | null; level?: number; parameters?: number } = {},
): { value: number; standardError: number; interval: Interval } | null {
  const n = sampled.length;
  if (n < 2) return null;
  const weightOf = (i: number) => (weights ? weights[i]! : 1);
  let sum = 0;
  let all = weights ? 0 : predicted.length;
  if (weights)
    for (let i = 0; i < predicted.length; i++) {
      sum += weights[i]! * predicted[i]!;
      all += weights[i]!;
    }
  else for (let i = 0; i < predicted.length; i++) sum += predicted[i]!;
  const weighed = sampled.map((i, k) => ({
    weight: weightOf(i),
    error: truth[k]! - predicted[i]!,
  }));
  const weight = weighed.reduce((total, one) => total + one.weight, 0);
  if (weight === 0) return null;
  const off = weighed.reduce((total, one) => total + one.weight * one.error, 0) / weight;
  const spread = weighed.reduce((total, one) => total + (one.weight * (one.error - off)) ** 2, 0);
  const standardError =
    Math.sqrt((1 - n / predicted.length) * (n / Math.max(1, n - parameters)) * spread) / weight;
  const clip = (value: number) => Math.min(1, Math.max(0, value));
  const half = normalQuantile(0.5 + level / 2) * standardError;
  const value = sum / all + off;
  return {
    value: clip(value),
    standardError,
    interval: [clip(value - half), clip(value + half)],
  };
}
