import { randomSource, wilsonInterval, type Interval } from '../../statistics/index.js';
import { groupEqual } from '../training/folds.js';
import { averagePrecision, brierScore, f1, outcomeAt, precision, recall } from './metrics.js';

/** Quality at the default threshold, measured out-of-fold on settled answers. */
export interface MeasuredQuality {
  precision: number;
  precisionInterval: Interval;
  recall: number;
  recallInterval: Interval;
  f1: number;
  f1Interval: Interval;
  averagePrecision: number;
  brier: number;
}

const RESAMPLINGS = 400;

/** Groups of duplicates as they are drawn for each resampling: alike for all codes, so that it is done once. */
export interface Resampled {
  groups: number[][];
  /** How often each group is drawn, resampling after resampling; nobody will see one drawn more than 255 times. */
  drawn: Uint8Array;
}

/** @param keys of settled answers, equal for duplicates */
export function resample(keys: readonly string[], seed: number): Resampled {
  const groups = groupEqual(keys);
  const drawn = new Uint8Array(RESAMPLINGS * groups.length);
  const next = randomSource(seed);
  for (let first = 0; first < drawn.length; first += groups.length)
    for (let draw = 0; draw < groups.length; draw++)
      drawn[first + Math.floor((next() / 2 ** 32) * groups.length)]! += 1;
  return { groups, drawn };
}

/**
 * Measures predictions against labels at a threshold: Wilson intervals for precision and recall, a percentile
 * bootstrap over groups of duplicates for F1.
 *
 * @param p out-of-fold probabilities
 * @see Wilson (1927); Efron (1979) Bootstrap methods: another look at the jackknife
 */
export function measureQuality(
  p: Float64Array,
  labels: Uint8Array,
  threshold: number,
  resampled: Resampled,
): MeasuredQuality {
  const outcome = outcomeAt(p, labels, threshold);
  const { truePositives: tp, falsePositives: fp, falseNegatives: fn } = outcome;
  return {
    precision: precision(outcome),
    precisionInterval: wilsonInterval(precision(outcome), tp + fp),
    recall: recall(outcome),
    recallInterval: wilsonInterval(recall(outcome), tp + fn),
    f1: f1(outcome),
    f1Interval: bootstrapF1(p, labels, threshold, resampled),
    averagePrecision: averagePrecision(p, labels),
    brier: brierScore(p, labels),
  };
}

function bootstrapF1(
  p: Float64Array,
  labels: Uint8Array,
  threshold: number,
  { groups, drawn }: Resampled,
): Interval {
  const outcomes = groups
    .map((group, place) => ({
      place,
      ...outcomeAt(
        Float64Array.from(group, (i) => p[i]!),
        Uint8Array.from(group, (i) => labels[i]!),
        threshold,
      ),
    }))
    // most are rightly left without the code, which F1 does not count
    .filter((one) => one.truePositives + one.falsePositives + one.falseNegatives > 0);
  const draws = Float64Array.from({ length: RESAMPLINGS }, (_, resampling) => {
    const sum = { truePositives: 0, falsePositives: 0, falseNegatives: 0 };
    for (const outcome of outcomes) {
      const times = drawn[resampling * groups.length + outcome.place]!;
      sum.truePositives += times * outcome.truePositives;
      sum.falsePositives += times * outcome.falsePositives;
      sum.falseNegatives += times * outcome.falseNegatives;
    }
    return f1(sum);
  }).sort();
  return [draws[Math.floor(0.025 * RESAMPLINGS)]!, draws[Math.floor(0.975 * RESAMPLINGS)]!];
}
