/** How often "yes" and "no" were right and wrong. */
export interface Outcome {
  truePositives: number;
  falsePositives: number;
  falseNegatives: number;
}

/** Counts outcomes when everything with p ≥ threshold is taken as yes. */
export function outcomeAt(p: Float64Array, labels: Uint8Array, threshold: number): Outcome {
  const outcome = { truePositives: 0, falsePositives: 0, falseNegatives: 0 };
  labels.forEach((y, i) => {
    const yes = p[i]! >= threshold;
    if (yes && y === 1) outcome.truePositives++;
    else if (yes) outcome.falsePositives++;
    else if (y === 1) outcome.falseNegatives++;
  });
  return outcome;
}

const ratio = (over: number, under: number) => (under === 0 ? 0 : over / under);

/** Share of the yeses that are right; 0 when there is none. @see van Rijsbergen (1979) */
export const precision = ({ truePositives: tp, falsePositives: fp }: Outcome) => ratio(tp, tp + fp);

/** Share of the true ones that are found; 0 when there is none. */
export const recall = ({ truePositives: tp, falseNegatives: fn }: Outcome) => ratio(tp, tp + fn);

/** Harmonic mean of precision and recall: 2TP / (2TP + FP + FN). */
export const f1 = ({ truePositives: tp, falsePositives: fp, falseNegatives: fn }: Outcome) =>
  ratio(2 * tp, 2 * tp + fp + fn);

const highestFirst = (p: Float64Array) =>
  Int32Array.from(p, (_, i) => i).sort((x, y) => p[y]! - p[x]! || x - y);

/**
 * Average precision: Σ (Rₙ − Rₙ₋₁) Pₙ over the distinct probabilities from high to low, without
 * interpolation; equal probabilities are one step.
 *
 * @returns 0 when there is no positive
 */
export function averagePrecision(p: Float64Array, labels: Uint8Array): number {
  const positives = labels.reduce((sum, y) => sum + y, 0);
  if (positives === 0) return 0;
  const order = highestFirst(p);
  let [seen, found, foundBefore, sum] = [0, 0, 0, 0];
  order.forEach((example, rank) => {
    seen += 1;
    found += labels[example]!;
    const next = order[rank + 1];
    if (next !== undefined && p[next] === p[example]) return;
    sum += ((found - foundBefore) / positives) * (found / seen);
    foundBefore = found;
  });
  return sum;
}

/** Brier score: the mean of (p − y)². @see Brier (1950) Verification of forecasts */
export const brierScore = (p: Float64Array, labels: Uint8Array): number =>
  p.reduce((sum, value, i) => sum + (value - labels[i]!) ** 2, 0) / p.length;

/** The threshold with the highest F1; of equals the highest. */
export function bestF1Threshold(p: Float64Array, labels: Uint8Array): number {
  const positives = labels.reduce((sum, y) => sum + y, 0);
  const order = highestFirst(p);
  let [found, best, threshold] = [0, -1, 1];
  order.forEach((example, rank) => {
    found += labels[example]!;
    const next = order[rank + 1];
    if (next !== undefined && p[next] === p[example]) return;
    const score = (2 * found) / (rank + 1 + positives);
    if (score > best) [best, threshold] = [score, p[example]!];
  });
  return threshold;
}

/**
 * The threshold that maximises the expected F1 of calibrated probabilities, 2·Σ p of those from it on / (their number + Σ p):
 * of those with more than half of the F1 that was reached so far, until there is no more to reach.
 *
 * @returns 1 when there is nothing to cut
 * @see Lipton, Elkan & Naryanaswamy (2014) Optimal thresholding of classifiers to maximize F1 measure; Dinkelbach
 *   (1967) On nonlinear fractional programming for the way there
 */
export function plugInThreshold(p: Float64Array): number {
  const total = p.reduce((sum, value) => sum + value, 0);
  let [best, threshold] = [0, 1];
  for (;;) {
    let [sum, count, least] = [0, 0, 1];
    for (let i = 0; i < p.length; i++) {
      const value = p[i]!;
      if (value <= best / 2) continue;
      sum += value;
      count += 1;
      if (value < least) least = value;
    }
    const expected = (2 * sum) / (count + total);
    if (!(expected > best)) return threshold;
    [best, threshold] = [expected, least];
  }
}
