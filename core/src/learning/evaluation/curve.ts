import { tQuantile, type Interval } from '../../statistics/index.js';

/** How good a model was by how many answers it learnt from. */
export interface CurvePoint {
  answers: number;
  averagePrecision: number;
}

/** What a number of further settled answers would likely add to a model's average precision. */
export interface LikelyGain {
  answers: number;
  value: number;
  interval: Interval;
}

const LEAST_ERROR = 1e-3;

/**
 * Carries a learning curve on by a power law: ln(1 − quality) falls in a straight line over ln(answers), by least
 * squares. The interval is that of the line's slope; a slope the wrong way counts as none.
 *
 * @returns null with fewer than three points
 * @see Cortes et al. (1994) Learning curves: asymptotic values and rate of convergence
 */
export function likelyGain(points: readonly CurvePoint[], more: number): LikelyGain | null {
  const last = points.at(-1);
  if (!last || points.length < 3) return null;
  const xs = points.map((point) => Math.log(point.answers));
  const ys = points.map((point) => Math.log(Math.max(LEAST_ERROR, 1 - point.averagePrecision)));
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [mx, my] = [mean(xs), mean(ys)];
  const spread = xs.reduce((sum, x) => sum + (x - mx) ** 2, 0);
  if (spread === 0) return null;
  const slope = xs.reduce((sum, x, i) => sum + (x - mx) * (ys[i]! - my), 0) / spread;
  const free = points.length - 2;
  const left = ys.reduce((sum, y, i) => sum + (y - my - slope * (xs[i]! - mx)) ** 2, 0);
  const half = tQuantile(0.975, free) * Math.sqrt(left / free / spread);
  const gain = (fall: number) =>
    (1 - last.averagePrecision) * (1 - ((last.answers + more) / last.answers) ** Math.min(0, fall));
  return { answers: more, value: gain(slope), interval: [gain(slope + half), gain(slope - half)] };
}
