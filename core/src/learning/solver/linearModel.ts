/** A linear model: score = Σ weight · value + intercept. */
export interface LinearModel {
  weights: Float64Array;
  intercept: number;
}

export const sigmoid = (f: number): number =>
  f >= 0 ? 1 / (1 + Math.exp(-f)) : Math.exp(f) / (1 + Math.exp(f));

/** Beyond this the sigmoid is 0 or 1 within 2e−8. */
const REACH = 18;
const STEPS = 256;
const SIGMOID_TABLE = Float64Array.from({ length: 2 * REACH * STEPS + 2 }, (_, i) =>
  sigmoid(i / STEPS - REACH),
);

/** The sigmoid within 2e−7, from a table: for millions of numbers that are kept in 32 bits. */
export function approximateSigmoid(f: number): number {
  if (!(f > -REACH)) return 0;
  if (f >= REACH) return 1;
  const at = (f + REACH) * STEPS;
  const step = Math.floor(at);
  const before = SIGMOID_TABLE[step]!;
  return before + (at - step) * (SIGMOID_TABLE[step + 1]! - before);
}
