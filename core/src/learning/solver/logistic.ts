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

/** A model with what the next fit of nearly the same rows can begin from. */
export interface LogisticFit extends LinearModel {
  /** How much each row of the matrix brings into the weights: weights = Σ share · row. */
  shares: Float64Array;
  /** What each row of the matrix scores. */
  scores: Float64Array;
  preconditioner: Preconditioner;
}

export interface LogisticOptions extends Examples {
  /** Ends with the rows' shares this near to where they should be, against the farthest they can be off. */
  tolerance?: number;
  /** A model of these rows and some others to begin from: sooner there, at the same model within the tolerance. */
  from?: LogisticFit;
}

/** After so many rounds for one step a preconditioner is worth working out anew. */
const ROUNDS_BEFORE_NEW_PRECONDITIONER = 14;
/** What rows that are learnt from score in the end, give or take. */
const INITIAL_MARGIN = 3;
const EXACT_TOLERANCE = 1e-10;
/** Numbers of 32 bits lead to a step that need be no nearer than this; what they do not reach is carried on in numbers of 64. */
const F32_TOLERANCE = 1e-4;
/**
 * To the scores is added what the rounds of a step came by, of which numbers of 32 bits miss a millionth. This near to
 * the end, against the farthest, that is nothing any more; what was missed before is put right there, once.
 */
const F32_SCORES_TOLERANCE = 4e-4;
const MOST_HALVINGS = 30;
/** Far from the end a step need not be solved any nearer; one that led only so far along its way is followed by a nearer one. */
const LOOSEST_TOLERANCE = 0.03;
const SHORT_STEP = 0.1;

/**
 * L2-penalised logistic regression with a free intercept: minimises Σ sᵢ ln(1 + exp(−yᵢ fᵢ)) + |w|² / (2C) with
 * f = w·x + b and w = Σ αᵢ xᵢ, Σ αᵢ = 0, by Newton steps on α and b, each solved by conjugate gradients on the
 * symmetric I + S K S, where K is the rows' products with each other and S² = C s p (1 − p). The step is halved while
 * the objective would rise. Deterministic. What it is worked out in is as long as there are rows and stays small,
 * however many columns there are.
 *
 * @param workspace what it is worked out in, for so many rows as the matrix has
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

  /** What the shares make the scores. */
  function* score(place: FitState): FitCoroutine<void> {
    const made = yield* requestProduct('kernel', place.shares);
    for (let i = 0; i < made.length; i++) place.scores[i] = made[i]! + place.intercept;
    place.isExact = true;
    updateObjective(place, options);
  }

  initialise(current, options);
  if (from) yield* score(current);
  else updateObjective(current, options);

  // The first step is seen from the scores that the rows will have, not from those that the shares make by now: that
  // would lead astray, and two or three more would follow before steps get good.
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
    // a step that is only nearly Newton's may lead upwards; an exact one does not, until the least is reached
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
  // those that begin from here need it where they begin
  if (!from) {
    linearise(current, options, dualStep);
    preconditioner = buildPreconditioner(x, rows, root);
  }
  const scores = model.slice(x.columns);
  for (let row = 0; row < scores.length; row++) scores[row]! += intercept;
  return { weights: model.slice(0, x.columns), intercept, shares, scores, preconditioner };
}

/**
 * Goes along a step as far as the objective gets less as its slope promises, but for what rounding hides.
 *
 * @returns how far: 1, a half, a quarter … or 0 where it gets no less
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
 * Begins with the shares and the intercept of the model to begin from, or with none. Its other rows' shares are missed
 * evenly by all, so that the sum is none.
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

/**
 * The scores that rows will have: about those that they had in the model to begin from, where the other rows were learnt
 * from too, and otherwise some on their label's side.
 */
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

/** The last of each matrix. */
const initialPreconditioners = new WeakMap<
  SparseRows,
  Pick<LogisticOptions, 'rows' | 'importance' | 'c'> & { condition: Preconditioner }
>();

/**
 * The preconditioner of fits that begin from nothing. The scores that are foreseen are as far from 0 for either label,
 * so that it is the same for all codes.
 */
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
