import type { Equation } from './float32Solver.js';

/** What a model is fitted to. */
export interface Examples {
  /** Rows to learn from, each once. */
  rows: Int32Array;
  /** 1 or 0 for each row of the whole matrix. */
  labels: Uint8Array;
  /** How much each row of the whole matrix counts. */
  importance: Float64Array;
  /** Inverse strength of the L2 penalty. */
  c: number;
}

/** Where a fit has come. */
export interface FitState {
  /** Shares, scores and probabilities by row listed. */
  shares: Float64Array;
  scores: Float64Array;
  probabilities: Float64Array;
  intercept: number;
  /** What is to be as small as can be. */
  objective: number;
  /** Whether the scores are what the shares make them, or only nearly, as they were added up in numbers of 32 bits. */
  isExact: boolean;
}

/** What a fit is worked out in. One fit after the other uses it: making it anew for each step takes longer than the step. */
export interface FitWorkspace {
  /** Where the fit is, and where it looks whether to go. */
  current: FitState;
  candidate: FitState;
  dualStep: DualStep;
  change: Float64Array;
  product: Float64Array;
}

/** Where the shares are targetSum to by the scores, by row listed: S, the residual of the equation, and the pulls themselves. */
export interface DualStep extends Pick<Equation, 'root' | 'residual'> {
  target: Float64Array;
}

/** @param count rows of the matrix */
export function fitWorkspace(count: number): FitWorkspace {
  const numbers = () => new Float64Array(count);
  const place = () => ({
    shares: numbers(),
    scores: numbers(),
    probabilities: numbers(),
    intercept: 0,
    objective: 0,
    isExact: true,
  });
  return {
    current: place(),
    candidate: place(),
    change: numbers(),
    product: numbers(),
    dualStep: { root: numbers(), residual: numbers(), target: numbers() },
  };
}

/** The room for a fit of so many rows. */
export function workspaceFor(
  { current, candidate, dualStep, change, product }: FitWorkspace,
  rows: number,
): FitWorkspace {
  const part = (numbers: Float64Array) => numbers.subarray(0, rows);
  const partOf = ({ shares, scores, probabilities, ...rest }: FitState): FitState => ({
    ...rest,
    shares: part(shares),
    scores: part(scores),
    probabilities: part(probabilities),
  });
  return {
    current: partOf(current),
    candidate: partOf(candidate),
    dualStep: {
      root: part(dualStep.root),
      residual: part(dualStep.residual),
      target: part(dualStep.target),
    },
    change: part(change),
    product: part(product),
  };
}

const LEAST_ROOT = 1e-7;
/** Where a row's p (1 − p) is so small that a step would move its score farther than this, it says nothing of what is there. */
const LONGEST_MOVE = 50;
const MOST_FACTORS = 64;

/** Works out probabilities and what is to be as small as can be, of shares, scores and intercept. */
export function updateObjective(place: FitState, { rows, labels, importance, c }: Examples): void {
  const { shares, scores, probabilities, intercept } = place;
  let objective = 0;
  // ln x + ln y = ln x·y, and a product is soon made: as many are multiplied as cannot get too large
  let [factors, count] = [1, 0];
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const score = scores[i]!;
    // of the label that is less likely
    const odds = Math.exp(-Math.abs(score));
    const less = odds / (1 + odds);
    probabilities[i] = score >= 0 ? 1 - less : less;
    const isLess = score >= 0 !== (labels[row] === 1);
    let loss = isLess ? Math.abs(score) : 0;
    if (importance[row] !== 1) loss += Math.log1p(odds);
    else {
      factors *= 1 + odds;
      if (++count % MOST_FACTORS === 0) {
        objective += Math.log(factors);
        factors = 1;
      }
    }
    objective += importance[row]! * loss + (shares[i]! * (score - intercept)) / (2 * c);
  }
  place.objective = objective + Math.log(factors);
}

/** A step of a fit: by how much shares change, scores but for the intercept, and the intercept. */
export interface FitStep {
  change: Float64Array;
  product: Float64Array;
  interceptChange: number;
}

/** Goes from a place along a step, so far. */
export function takeStep(
  into: FitState,
  { shares, scores, intercept }: FitState,
  { change, product, interceptChange }: FitStep,
  length: number,
  examples: Examples,
): void {
  for (let i = 0; i < shares.length; i++) {
    into.shares[i] = shares[i]! + length * change[i]!;
    into.scores[i] = scores[i]! + length * (product[i]! + interceptChange);
  }
  into.intercept = intercept + length * interceptChange;
  updateObjective(into, examples);
}

/**
 * Says where the shares are targetSum to by a place's scores.
 *
 * @param made what the shares make the scores, where the place has others
 * @returns how far the shares are from there, and the sum of the pulls
 */
export function linearise(
  { shares, scores, probabilities }: FitState,
  { rows, labels, importance, c }: Examples,
  { root, residual, target }: DualStep,
  made = scores,
): { distance: number; targetSum: number } {
  let [squares, targetSum] = [0, 0];
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const p = probabilities[i]!;
    const weight = c * importance[row]!;
    const to = weight * (labels[row]! - p);
    const off = to - shares[i]!;
    const square = Math.max(weight * p * (1 - p), Math.abs(off) / LONGEST_MOVE);
    const s = Math.max(LEAST_ROOT, Math.sqrt(square));
    const left = off / s + s * (scores[i]! - made[i]!);
    target[i] = to;
    root[i] = s;
    residual[i] = left;
    squares += (left * s) ** 2;
    targetSum += to;
  }
  return { distance: Math.sqrt(squares), targetSum };
}
