import { sigmoid } from './logistic.js';

/** Turns scores into probabilities: p = σ(slope · score + shift). */
export interface Calibration {
  slope: number;
  shift: number;
}

/**
 * Fits a sigmoid to out-of-fold scores, with Platt's smoothed targets (n₁+1)/(n₁+2) and 1/(n₀+2).
 *
 * @param pullToOne strength of the penalty (slope − 1)² / 2 that keeps small samples near the model's own
 *   scale; 0 for none. With it the slope is kept at .05 or more, so that order is preserved.
 * @see Platt (1999) Probabilistic outputs for support vector machines; Lin, Lin & Weng (2007)
 */
export function fitPlatt(scores: Float64Array, labels: Uint8Array, pullToOne = 0): Calibration {
  const positives = labels.reduce((sum, y) => sum + y, 0);
  const high = (positives + 1) / (positives + 2);
  const low = 1 / (labels.length - positives + 2);
  const target = (i: number) => (labels[i] === 1 ? high : low);
  const loss = (a: number, b: number) =>
    scores.reduce((sum, f, i) => {
      const z = a * f + b;
      const t = target(i);
      return sum + Math.log1p(Math.exp(-Math.abs(z))) + Math.max(0, z) - t * z;
    }, 0) +
    (pullToOne * (a - 1) ** 2) / 2;

  let slope = pullToOne > 0 ? 1 : 0;
  let shift = Math.log((positives + 1) / (labels.length - positives + 1));
  let current = loss(slope, shift);
  for (let step = 0; step < 100; step++) {
    let [ga, gb] = [pullToOne * (slope - 1), 0];
    let [haa, hab, hbb] = [pullToOne + 1e-12, 0, 1e-12];
    scores.forEach((f, i) => {
      const p = sigmoid(slope * f + shift);
      const d = p * (1 - p);
      ga += (p - target(i)) * f;
      gb += p - target(i);
      haa += d * f * f;
      hab += d * f;
      hbb += d;
    });
    if (Math.abs(ga) + Math.abs(gb) < 1e-10) break;
    const determinant = haa * hbb - hab * hab;
    const da = -(hbb * ga - hab * gb) / determinant;
    const db = -(haa * gb - hab * ga) / determinant;
    let length = 1;
    while (length > 1e-10 && loss(slope + length * da, shift + length * db) > current) length /= 2;
    if (length <= 1e-10) break;
    slope += length * da;
    shift += length * db;
    current = loss(slope, shift);
  }
  return { slope: pullToOne > 0 ? Math.max(0.05, slope) : slope, shift };
}
