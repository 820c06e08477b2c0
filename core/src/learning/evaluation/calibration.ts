import { sigmoid } from '../solver/linearModel.js';

/** Turns scores into probabilities: p = σ(slope · score + shift). */
export interface Calibration {
  slope: number;
  shift: number;
}

/**
 * Fits a sigmoid to out-of-fold scores: with Platt's smoothed targets (n₁+1)/(n₁+2) and 1/(n₀+2), or with a penalty in
 * their place. Both at once hold few examples back twice, and probabilities come out too even (measured:
 * docs/notes/learning.md).
 *
 * @param pullToOne strength of the penalty (slope − 1)² / 2 that keeps small samples near the model's own
 *   scale; 0 for none. With it the slope is kept at .05 or more, so that order is preserved.
 * @see Platt (1999) Probabilistic outputs for support vector machines; Lin, Lin & Weng (2007)
 */
export function fitPlatt(scores: Float64Array, labels: Uint8Array, pullToOne = 0): Calibration {
  const positives = labels.reduce((sum, y) => sum + y, 0);
  const high = pullToOne > 0 ? 1 : (positives + 1) / (positives + 2);
  const low = pullToOne > 0 ? 0 : 1 / (labels.length - positives + 2);
  const target = Float64Array.from(labels, (label) => (label === 1 ? high : low));
  const loss = (a: number, b: number) => {
    let sum = (pullToOne * (a - 1) ** 2) / 2;
    for (let i = 0; i < scores.length; i++) {
      const z = a * scores[i]! + b;
      sum += Math.log1p(Math.exp(-Math.abs(z))) + Math.max(0, z) - target[i]! * z;
    }
    return sum;
  };

  let slope = pullToOne > 0 ? 1 : 0;
  let shift = Math.log((positives + 1) / (labels.length - positives + 1));
  let current = loss(slope, shift);
  for (let step = 0; step < 100; step++) {
    let [ga, gb] = [pullToOne * (slope - 1), 0];
    let [haa, hab, hbb] = [pullToOne + 1e-12, 0, 1e-12];
    for (let i = 0; i < scores.length; i++) {
      const f = scores[i]!;
      const p = sigmoid(slope * f + shift);
      const d = p * (1 - p);
      ga += (p - target[i]!) * f;
      gb += p - target[i]!;
      haa += d * f * f;
      hab += d * f;
      hbb += d;
    }
    const determinant = haa * hbb - hab * hab;
    const da = -(hbb * ga - hab * gb) / determinant;
    const db = -(haa * gb - hab * ga) / determinant;
    // a full step would gain less than the precision of the loss
    const isLast = -(ga * da + gb * db) < 1e-13 * (1 + current);
    let length = 1;
    let next = loss(slope + da, shift + db);
    while (!isLast && next > current && length > 1e-10) {
      length /= 2;
      next = loss(slope + length * da, shift + length * db);
    }
    slope += length * da;
    shift += length * db;
    if (isLast) break;
    current = next;
  }
  return { slope: pullToOne > 0 ? Math.max(0.05, slope) : slope, shift };
}
