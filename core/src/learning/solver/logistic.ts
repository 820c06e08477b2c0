import { sigmoid, type LinearModel } from './linearModel.js';
import { areEqual, dot, multiply } from './vectors.js';
import {
  takeStep,
  linearise,
  workspaceFor,
  updateObjective,
  type Examples,
  type FitWorkspace,
  type FitState,
  type FitStep,
} from './fitState.js';
import { buildPreconditioner, type Preconditioner } from './preconditioner.js';
import { restrictPreconditioner, solve, solveExactly } from './solveStep.js';
import type { SparseRows } from '../features/sparseRows.js';
import { requestProduct, type FitCoroutine } from './fitCoroutine.js';

/** A model, with what a fit of nearly the same rows can start from. */
export interface LogisticFit extends LinearModel {
  /** Dual coefficients by row of the matrix: weights = Σ share · row. */
  shares: Float64Array;
  /** Scores by row of the matrix. */
  scores: Float64Array;
  preconditioner: Preconditioner;
}

export interface LogisticOptions extends Examples {
  /** The fit ends when the gradient in the shares is this part of the largest that it can be. */
  tolerance?: number;
  /** A fit of these rows and others to start from: faster, and the same model within the tolerance. */
  from?: LogisticFit;
}

/** Iterations for one step after which computing a new preconditioner pays. */
const ROUNDS_BEFORE_NEW_PRECONDITIONER = 14;
/** The margin that rows are expected to have in the end, for fits without another to start from. */
const INITIAL_MARGIN = 3;
const EXACT_TOLERANCE = 1e-10;
/** The least relative tolerance that 32-bit steps are asked for; smaller ones are solved in 64 bits. */
const F32_TOLERANCE = 1e-4;
/**
 * Scores are updated by the products that a step computed, in 32 bits with a relative error of 1e−6. With a gradient this
 * small that no longer matters; the error from before is removed there, once, by computing the scores again.
 */
const F32_SCORES_TOLERANCE = 4e-4;
const MOST_HALVINGS = 30;
/** Far from the optimum steps are solved to this tolerance; after a line search that ends below SHORT_STEP, to a tenth of it. */
const LOOSEST_TOLERANCE = 0.03;
const SHORT_STEP = 0.1;

/**
 * L2-penalised logistic regression with a free intercept: minimises Σ sᵢ ln(1 + exp(−yᵢ fᵢ)) + |w|² / (2C) with
 * f = w·x + b and w = Σ αᵢ xᵢ, Σ αᵢ = 0, by Newton steps on α and b, each solved by conjugate gradients on the
 * symmetric I + S K S, where K is the rows' products with each other and S² = C s p (1 − p). The step is halved while
 * the objective would rise. Deterministic. Memory grows with the rows, not with the columns.
 *
 * @param workspace for as many rows as the matrix has
 * @see Zhu & Hastie (2005) Kernel logistic regression and the import vector machine
 */
export function* fitByNewton(
  x: SparseRows,
  options: LogisticOptions,
  workspace: FitWorkspace,
): FitCoroutine<LogisticFit> {
  const { rows, importance, c, from, tolerance = 1e-7 } = options;
  const { dualStep, change, product, ...states } = workspaceFor(workspace, rows.length);
  let { current, candidate } = states;
  let squares = 0;
  for (let i = 0; i < rows.length; i++) squares += importance[rows[i]!]! ** 2;
  const largestGradient = 0.5 * c * Math.sqrt(squares);
  let preconditioner = from?.preconditioner ?? initialPreconditioner(x, options);
  let restricted = restrictPreconditioner(preconditioner, rows);
  let rounds = 0;
  let isStuck = false;
  let mustBeExact = false;
  let looseTolerance = LOOSEST_TOLERANCE;

  /** Computes the scores from the shares. */
  function* score(place: FitState): FitCoroutine<void> {
    const made = yield* requestProduct('kernel', place.shares);
    for (let i = 0; i < made.length; i++) place.scores[i] = made[i]! + place.intercept;
    place.isExact = true;
    updateObjective(place, options);
  }

  initialise(current, options);
  if (from) yield* score(current);
  else updateObjective(current, options);

  // The first step is linearised at the scores that the rows are expected to have, not at those of the current shares,
  // which would cost two or three more steps.
  expectScores(candidate, current, options);
  const { distance: ahead } = linearise(candidate, options, dualStep, current.scores);
  const { root, residual } = dualStep;
  const equation = { rows, root, residual, change, product };
  const firstTolerance = Math.max(
    F32_TOLERANCE,
    Math.min(LOOSEST_TOLERANCE, ahead / largestGradient),
  );
  const first = yield* solve({ ...equation, preconditioner: restricted, accuracy: firstTolerance });
  multiply(change, root, change);
  takeStep(candidate, current, { change, product, interceptChange: first.intercept }, 1, options);
  candidate.isExact = false;
  if (candidate.objective < current.objective) [current, candidate] = [candidate, current];

  for (let step = 0; step < 100; step++) {
    const { distance, targetSum } = linearise(current, options, dualStep);
    if (distance <= tolerance * largestGradient && current.isExact) break;
    const accuracy = mustBeExact
      ? EXACT_TOLERANCE
      : Math.max(
          (0.3 * tolerance * largestGradient) / distance,
          Math.min(looseTolerance, distance / largestGradient),
        );
    const isF32Enough = accuracy >= F32_TOLERANCE;
    const isNear = distance <= F32_SCORES_TOLERANCE * largestGradient;
    if (!current.isExact && (isNear || isStuck || !isF32Enough)) {
      yield* score(current);
      isStuck = false;
      continue;
    }
    if (rounds > ROUNDS_BEFORE_NEW_PRECONDITIONER || mustBeExact) {
      preconditioner = buildPreconditioner(x, rows, root);
      restricted = restrictPreconditioner(preconditioner, rows);
    }
    const scaled = { ...equation, preconditioner: restricted, accuracy };
    const solved = yield* isF32Enough ? solve(scaled) : solveExactly(scaled);
    rounds = solved.rounds;
    const interceptChange = solved.intercept;
    multiply(change, root, change);
    const slope =
      (dot(current.shares, product) - dot(dualStep.target, product) - interceptChange * targetSum) /
      c;
    const length = lineSearch(
      candidate,
      current,
      { change, product, interceptChange },
      slope,
      options,
    );
    // an inexact Newton step may raise the objective; an exact one does so only at the minimum
    if (length === 0 && mustBeExact) break;
    mustBeExact = length === 0 && current.isExact;
    isStuck = length < SHORT_STEP;
    looseTolerance = isStuck ? looseTolerance / 10 : LOOSEST_TOLERANCE;
    if (length === 0) continue;
    candidate.isExact = current.isExact && (solved.isExact || isNear);
    [current, candidate] = [candidate, current];
  }
  const { intercept } = current;
  const model = yield* requestProduct('model', current.shares);
  const shares = new Float64Array(x.count);
  for (let i = 0; i < rows.length; i++) shares[rows[i]!] = current.shares[i]!;
  // fits that start from this one need the preconditioner of its end
  if (!from) {
    linearise(current, options, dualStep);
    preconditioner = buildPreconditioner(x, rows, root);
  }
  const scores = model.slice(x.columns);
  for (let row = 0; row < scores.length; row++) scores[row]! += intercept;
  return { weights: model.slice(0, x.columns), intercept, shares, scores, preconditioner };
}

/**
 * Backtracking line search by Armijo's condition, with a margin for rounding.
 *
 * @returns the length of the step: 1, a half, a quarter … or 0 where the objective does not fall
 * @see Nocedal & Wright (2006) Numerical Optimization, algorithm 3.1
 */
function lineSearch(
  into: FitState,
  from: FitState,
  step: FitStep,
  slope: number,
  examples: Examples,
): number {
  if (slope >= 0) return 0;
  for (let halving = 0, length = 1; halving < MOST_HALVINGS; halving++, length /= 2) {
    takeStep(into, from, step, length, examples);
    if (into.objective <= from.objective + 1e-4 * length * slope + 1e-14 * from.objective)
      return length;
  }
  return 0;
}

/**
 * Sets the state to the shares and intercept of the fit to start from, or to zero. The mean is subtracted from the shares,
 * since they must sum to zero without the other rows.
 */
function initialise(place: FitState, { rows, from }: LogisticOptions): void {
  place.intercept = from?.intercept ?? 0;
  place.isExact = true;
  place.scores.fill(0);
  place.shares.fill(0);
  if (!from) return;
  let sum = 0;
  for (let i = 0; i < rows.length; i++) sum += from.shares[rows[i]!]!;
  const mean = sum / rows.length;
  for (let i = 0; i < rows.length; i++) place.shares[i] = from.shares[rows[i]!]! - mean;
}

/** The scores that rows are expected to have in the end: those of the fit to start from, else INITIAL_MARGIN on the side of their label. */
function expectScores(
  into: FitState,
  { shares, intercept }: FitState,
  options: LogisticOptions,
): void {
  const { rows, labels, from } = options;
  into.shares.set(shares);
  into.intercept = intercept;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    into.scores[i] = from
      ? from.scores[row]!
      : labels[row] === 1
        ? INITIAL_MARGIN
        : -INITIAL_MARGIN;
  }
  updateObjective(into, options);
}

/** The last one by matrix. */
const initialPreconditioners = new WeakMap<
  SparseRows,
  Pick<LogisticOptions, 'rows' | 'importance' | 'c'> & { condition: Preconditioner }
>();

/** The preconditioner of fits that start from zero: expected margins are the same for both labels, so all codes share it. */
function initialPreconditioner(
  x: SparseRows,
  { rows, importance, c }: LogisticOptions,
): Preconditioner {
  const kept = initialPreconditioners.get(x);
  if (kept?.c === c && areEqual(kept.rows, rows) && areEqual(kept.importance, importance))
    return kept.condition;
  const p = sigmoid(INITIAL_MARGIN);
  const root = Float64Array.from(rows, (row) => Math.sqrt(c * importance[row]! * p * (1 - p)));
  const condition = buildPreconditioner(x, rows, root);
  initialPreconditioners.set(x, { rows, importance, c, condition });
  return condition;
}
