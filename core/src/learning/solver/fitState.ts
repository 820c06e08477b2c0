import type { Equation } from './float32Solver.js';

/** What a model learns from. */
export interface Examples {
  /** Rows to learn from, each once. */
  rows: Int32Array;
  /** 1 or 0 for each row of the whole matrix. */
  labels: Uint8Array;
  /** Weight of each row of the whole matrix in the loss. */
  importance: Float64Array;
  /** Inverse strength of the L2 penalty. */
  c: number;
}

/** The state of a fit. */
export interface FitState {
  /** Shares, scores and probabilities by row listed. */
  shares: Float64Array;
  scores: Float64Array;
  probabilities: Float64Array;
  intercept: number;
  /** The value that is minimised. */
  objective: number;
  /** Whether the scores were computed from the shares in 64 bits, and not updated in 32. */
  isExact: boolean;
}

/** The arrays of a fit, reused by one fit after the other: allocating them for each step takes longer than the step. */
export interface FitWorkspace {
  /** The state of the fit, and the one that a step leads to. */
  current: FitState;
  candidate: FitState;
  dualStep: DualStep;
  change: Float64Array;
  product: Float64Array;
}

/** The Newton equation at a state, by row listed: S, its residual, and the shares C s (y − p) that the scores ask for. */
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

/** The part of a workspace that a fit of `rows` rows uses. */
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
/** Where p (1 − p) is so small that a step would move the score farther than this, the curvature is raised to allow just this. */
const LONGEST_MOVE = 50;
const MOST_FACTORS = 64;

/** Computes probabilities and the objective from shares, scores and intercept. */
export function updateObjective(place: FitState, { rows, labels, importance, c }: Examples): void {
  const { shares, scores, probabilities, intercept } = place;
  let objective = 0;
  // ln x + ln y = ln x·y: logarithms are taken of products of so many factors that these cannot overflow
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

/** A step: the changes of the shares, of the scores without the intercept, and of the intercept. */
export interface FitStep {
  change: Float64Array;
  product: Float64Array;
  interceptChange: number;
}

/** Adds a step times a length to a state. */
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
 * Linearises the optimality conditions at a state.
 *
 * @param made the scores that the shares give, where the state has others
 * @returns the norm of the gradient in the shares, and the sum of the shares that the scores ask for
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
