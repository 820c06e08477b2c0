import { sigmoid, type LinearModel } from './linearModel.js';
import { areEqual, dot, multiply } from './lists.js';
import {
  goAlong,
  pullAt,
  roomFor,
  weigh,
  type Examples,
  type FitRoom,
  type Place,
  type Step,
} from './place.js';
import { preconditioner, type Condition } from './precondition.js';
import { dividerOf, solve, solveExactly } from './solveStep.js';
import type { SparseRows } from './sparseRows.js';
import { multiplied, type Waiting } from './waiting.js';

/** A model with what the next fit of nearly the same rows can begin from. */
export interface LogisticFit extends LinearModel {
  /** How much each row of the matrix brings into the weights: weights = Σ share · row. */
  shares: Float64Array;
  /** What each row of the matrix scores. */
  scores: Float64Array;
  condition: Condition;
}

export interface LogisticOptions extends Examples {
  /** Ends with the rows' shares this near to where they should be, against the farthest they can be off. */
  tolerance?: number;
  /** A model of these rows and some others to begin from: sooner there, at the same model within the tolerance. */
  from?: LogisticFit;
}

/** After so many rounds for one step a preconditioner is worth working out anew. */
const roundsBeforeAnew = 14;
/** What rows that are learnt from score in the end, give or take. */
const usual = 3;
const mostExact = 1e-10;
/** Numbers of 32 bits lead to a step that need be no nearer than this; what they do not reach is carried on in numbers of 64. */
const rough = 1e-4;
/**
 * To the scores is added what the rounds of a step came by, of which numbers of 32 bits miss a millionth. This near to
 * the end, against the farthest, that is nothing any more; what was missed before is put right there, once.
 */
const near = 4e-4;
const mostHalvings = 30;
/** Far from the end a step need not be solved any nearer; one that led only so far along its way is followed by a nearer one. */
const loose = 0.03;
const short = 0.1;

/**
 * L2-penalised logistic regression with a free intercept: minimises Σ sᵢ ln(1 + exp(−yᵢ fᵢ)) + |w|² / (2C) with
 * f = w·x + b and w = Σ αᵢ xᵢ, Σ αᵢ = 0, by Newton steps on α and b, each solved by conjugate gradients on the
 * symmetric I + S K S, where K is the rows' products with each other and S² = C s p (1 − p). The step is halved while
 * the objective would rise. Deterministic. What it is worked out in is as long as there are rows and stays small,
 * however many columns there are.
 *
 * @param room what it is worked out in, for so many rows as the matrix has
 * @see Zhu & Hastie (2005) Kernel logistic regression and the import vector machine
 */
export function* fitting(
  x: SparseRows,
  options: LogisticOptions,
  room: FitRoom,
): Waiting<LogisticFit> {
  const { rows, importance, c, from, tolerance = 1e-7 } = options;
  const { pulls, change, product, ...places } = roomFor(room, rows.length);
  let { here, there } = places;
  let squares = 0;
  for (let i = 0; i < rows.length; i++) squares += importance[rows[i]!]! ** 2;
  const farthest = 0.5 * c * Math.sqrt(squares);
  let condition = from?.condition ?? conditionOfFirst(x, options);
  let divider = dividerOf(condition, rows);
  let rounds = 0;
  let stuck = false;
  let careful = false;
  let loosest = loose;

  /** What the shares make the scores. */
  function* score(place: Place): Waiting<void> {
    const made = yield* multiplied('kernel', place.shares);
    for (let i = 0; i < made.length; i++) place.scores[i] = made[i]! + place.intercept;
    place.isExact = true;
    weigh(place, options);
  }

  begin(here, options);
  if (from) yield* score(here);
  else weigh(here, options);

  // The first step is seen from the scores that the rows will have, not from those that the shares make by now: that
  // would lead astray, and two or three more would follow before steps get good.
  foresee(there, here, options);
  const { distance: ahead } = pullAt(there, options, pulls, here.scores);
  const { root, residual } = pulls;
  const equation = { rows, root, residual, change, product };
  const nearEnough = Math.max(rough, Math.min(loose, ahead / farthest));
  const first = yield* solve({ ...equation, divider, accuracy: nearEnough });
  multiply(change, root, change);
  goAlong(there, here, { change, product, rise: first.intercept }, 1, options);
  there.isExact = false;
  if (there.objective < here.objective) [here, there] = [there, here];

  for (let step = 0; step < 100; step++) {
    const { distance, pulled } = pullAt(here, options, pulls);
    if (distance <= tolerance * farthest && here.isExact) break;
    const accuracy = careful
      ? mostExact
      : Math.max((0.3 * tolerance * farthest) / distance, Math.min(loosest, distance / farthest));
    const mayBeRough = accuracy >= rough;
    const isNear = distance <= near * farthest;
    if (!here.isExact && (isNear || stuck || !mayBeRough)) {
      yield* score(here);
      stuck = false;
      continue;
    }
    if (rounds > roundsBeforeAnew || careful) {
      condition = preconditioner(x, rows, root);
      divider = dividerOf(condition, rows);
    }
    const wanted = { ...equation, divider, accuracy };
    const solved = yield* mayBeRough ? solve(wanted) : solveExactly(wanted);
    rounds = solved.rounds;
    const rise = solved.intercept;
    multiply(change, root, change);
    const slope = (dot(here.shares, product) - dot(pulls.pull, product) - rise * pulled) / c;
    const length = descend(there, here, { change, product, rise }, slope, options);
    // a step that is only nearly Newton's may lead upwards; an exact one does not, until the least is reached
    if (length === 0 && careful) break;
    careful = length === 0 && here.isExact;
    stuck = length < short;
    loosest = stuck ? loosest / 10 : loose;
    if (length === 0) continue;
    there.isExact = here.isExact && (solved.isExact || isNear);
    [here, there] = [there, here];
  }
  const { intercept } = here;
  const model = yield* multiplied('model', here.shares);
  const shares = new Float64Array(x.count);
  for (let i = 0; i < rows.length; i++) shares[rows[i]!] = here.shares[i]!;
  // those that begin from here need it where they begin
  if (!from) {
    pullAt(here, options, pulls);
    condition = preconditioner(x, rows, root);
  }
  const scores = model.slice(x.columns);
  for (let row = 0; row < scores.length; row++) scores[row]! += intercept;
  return { weights: model.slice(0, x.columns), intercept, shares, scores, condition };
}

/**
 * Goes along a step as far as the objective gets less as its slope promises, but for what rounding hides.
 *
 * @returns how far: 1, a half, a quarter … or 0 where it gets no less
 */
function descend(into: Place, from: Place, step: Step, slope: number, examples: Examples): number {
  if (slope >= 0) return 0;
  for (let halving = 0, length = 1; halving < mostHalvings; halving++, length /= 2) {
    goAlong(into, from, step, length, examples);
    if (into.objective <= from.objective + 1e-4 * length * slope + 1e-14 * from.objective)
      return length;
  }
  return 0;
}

/**
 * Begins with the shares and the intercept of the model to begin from, or with none. Its other rows' shares are missed
 * evenly by all, so that the sum is none.
 */
function begin(place: Place, { rows, from }: LogisticOptions): void {
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
function foresee(into: Place, { shares, intercept }: Place, options: LogisticOptions): void {
  const { rows, labels, from } = options;
  into.shares.set(shares);
  into.intercept = intercept;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    into.scores[i] = from ? from.scores[row]! : labels[row] === 1 ? usual : -usual;
  }
  weigh(into, options);
}

/** The last of each matrix. */
const conditions = new WeakMap<
  SparseRows,
  Pick<LogisticOptions, 'rows' | 'importance' | 'c'> & { condition: Condition }
>();

/**
 * The preconditioner of fits that begin from nothing. The scores that are foreseen are as far from 0 for either label,
 * so that it is the same for all codes.
 */
function conditionOfFirst(x: SparseRows, { rows, importance, c }: LogisticOptions): Condition {
  const kept = conditions.get(x);
  if (kept?.c === c && areEqual(kept.rows, rows) && areEqual(kept.importance, importance))
    return kept.condition;
  const p = sigmoid(usual);
  const root = Float64Array.from(rows, (row) => Math.sqrt(c * importance[row]! * p * (1 - p)));
  const condition = preconditioner(x, rows, root);
  conditions.set(x, { rows, importance, c, condition });
  return condition;
}
