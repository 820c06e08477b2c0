import { randomSource, wilsonInterval, type Interval } from '../statistics/index.js';
import { groupEqual } from './folds.js';
import { averagePrecision, brierScore, f1, outcomeAt, precision, recall } from './metrics.js';

/** Quality at the default line, measured out-of-fold on settled answers. */
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

const resamplings = 400;

/**
 * Measures predictions against labels at a line: Wilson intervals for precision and recall, a percentile
 * bootstrap over groups of duplicates for F1.
 *
 * @param p out-of-fold probabilities
 * @param keys equal for duplicates
 * @see Wilson (1927); Efron (1979) Bootstrap methods: another look at the jackknife
 */
export function measureQuality(
  p: Float64Array,
  labels: Uint8Array,
  line: number,
  keys: readonly string[],
  seed: number,
): MeasuredQuality {
  const outcome = outcomeAt(p, labels, line);
  const { truePositives: tp, falsePositives: fp, falseNegatives: fn } = outcome;
  return {
    precision: precision(outcome),
    precisionInterval: wilsonInterval(precision(outcome), tp + fp),
    recall: recall(outcome),
    recallInterval: wilsonInterval(recall(outcome), tp + fn),
    f1: f1(outcome),
    f1Interval: bootstrapF1(p, labels, line, groupEqual(keys), seed),
    averagePrecision: averagePrecision(p, labels),
    brier: brierScore(p, labels),
  };
}

function bootstrapF1(
  p: Float64Array,
  labels: Uint8Array,
  line: number,
  groups: number[][],
  seed: number,
): Interval {
  const outcomes = groups.map((group) =>
    outcomeAt(
      Float64Array.from(group, (i) => p[i]!),
      Uint8Array.from(group, (i) => labels[i]!),
      line,
    ),
  );
  // in lists of numbers: this is done some million times
  const listOf = (kind: keyof (typeof outcomes)[number]) =>
    Int32Array.from(outcomes, (outcome) => outcome[kind]);
  const [right, wrong, missed] = [
    listOf('truePositives'),
    listOf('falsePositives'),
    listOf('falseNegatives'),
  ];
  const next = randomSource(seed);
  const draws = Float64Array.from({ length: resamplings }, () => {
    let [truePositives, falsePositives, falseNegatives] = [0, 0, 0];
    for (let drawn = 0; drawn < right.length; drawn++) {
      const group = Math.floor((next() / 2 ** 32) * right.length);
      truePositives += right[group]!;
      falsePositives += wrong[group]!;
      falseNegatives += missed[group]!;
    }
    return f1({ truePositives, falsePositives, falseNegatives });
  }).sort();
  return [draws[Math.floor(0.025 * resamplings)]!, draws[Math.floor(0.975 * resamplings)]!];
}
