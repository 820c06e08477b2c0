import type { Product } from './laneProducts.js';
import type { LinearModel } from './linearModel.js';
import { dot } from './lists.js';
import { preconditioner, solveCholesky, type Condition } from './precondition.js';
import type { Divider, Equation, RoughSolution } from './roughSolver.js';
import type { SparseRows } from './sparseRows.js';

/** A model with what the next fit of nearly the same rows can begin from. */
export interface LogisticFit extends LinearModel {
  /** How much each row of the matrix brings into the weights: weights = Σ share · row. */
  shares: Float64Array;
  condition: Condition | undefined;
}

export interface LogisticOptions {
  /** Rows to learn from, each once. */
  rows: Int32Array;
  /** 1 or 0 for each row of the whole matrix. */
  labels: Uint8Array;
  /** How much each row of the whole matrix counts. */
  importance: Float64Array;
  /** Inverse strength of the L2 penalty. */
  c: number;
  /** Ends with the rows' shares this near to where they should be, against the farthest they can be off. */
  tolerance?: number;
  /** A model of these rows and some others to begin from: sooner there, at the same model within the tolerance. */
  from?: LogisticFit;
}

/** What a fit waits for: a product with the rows to learn from, or an equation solved in numbers of 32 bits. */
export type Wanted = { product: Product; vector: Float64Array } | { equation: Equation };

/**
 * A fit that stops at each thing it needs, so that many fits can go through the rows together. A product may be written
 * over when it asks for the next of that kind.
 */
type Waiting<Result> = Generator<Wanted, Result, Float64Array | RoughSolution>;
export type Fitting = Waiting<LogisticFit>;

function* multiplied(product: Product, vector: Float64Array): Waiting<Float64Array> {
  const given = yield { product, vector };
  if (given instanceof Float64Array) return given;
  throw new TypeError('A fit was given a solution in place of a product.');
}

function* solvedRoughly(equation: Equation): Waiting<RoughSolution> {
  const given = yield { equation };
  if (!(given instanceof Float64Array)) return given;
  throw new TypeError('A fit was given a product in place of a solution.');
}

const mostRounds = 300;
/** After so many rounds for one step a preconditioner is worth working out anew. */
const roundsBeforeAnew = 30;
const leastRoot = 1e-7;
const mostExact = 1e-10;
/** Numbers of 32 bits lead to a step that need be no nearer than this; what they do not reach is carried on in numbers of 64. */
const rough = 1e-4;
/**
 * To the scores is added what the rounds of a step came by, of which numbers of 32 bits miss a millionth. This near to
 * the end, against the farthest, that is nothing any more; what was missed before is put right there, once.
 */
const near = 1e-4;
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
 * @see Zhu & Hastie (2005) Kernel logistic regression and the import vector machine
 */
export function* fitting(x: SparseRows, options: LogisticOptions): Fitting {
  const { rows, importance, c, from, tolerance = 1e-7 } = options;
  const n = rows.length;
  let at = from
    ? yield* scored(sharesFrom(from, rows), from.intercept, options)
    : placeAt(new Float64Array(n), new Float64Array(n), 0, true, options);
  let condition = from?.condition;
  let divider = condition && dividerOf(condition, rows);
  let rounds = 0;
  let stuck = false;
  let careful = false;
  let loosest = loose;
  const farthest = 0.5 * c * Math.sqrt(rows.reduce((sum, row) => sum + importance[row]! ** 2, 0));
  for (let step = 0; step < 100; step++) {
    const { root, residual, pull, pulled, distance } = pullsAt(at, options);
    if (distance <= tolerance * farthest && at.isExact) break;
    const accuracy = careful
      ? mostExact
      : Math.max((0.3 * tolerance * farthest) / distance, Math.min(loosest, distance / farthest));
    const mayBeRough = accuracy >= rough;
    const isNear = distance <= near * farthest;
    if (!at.isExact && (isNear || stuck || !mayBeRough)) {
      at = yield* scored(at.shares, at.intercept, options);
      stuck = false;
      continue;
    }
    if (!divider || rounds > roundsBeforeAnew || careful) {
      condition = preconditioner(x, rows, root);
      divider = dividerOf(condition, rows);
    }
    const equation = { rows, root, residual, divider, accuracy };
    const solved = yield* mayBeRough ? solve(equation) : solveExactly(equation);
    rounds = solved.rounds;
    const { change: along, intercept: rise, product } = solved;
    multiply(along, root, along);
    const slope = (dot(at.shares, product) - dot(pull, product) - rise * pulled) / c;
    let length = 1;
    let improved = false;
    for (let halving = 0; halving < mostHalvings && slope < 0 && !improved; halving++) {
      const tried = placeAt(
        sumOf(at.shares, length, along),
        scoresAlong(at.scores, length, product, rise),
        at.intercept + length * rise,
        at.isExact && (solved.isExact || isNear),
        options,
      );
      // as much less as the slope promises, but for what rounding hides
      if (tried.objective <= at.objective + 1e-4 * length * slope + 1e-14 * at.objective) {
        at = tried;
        improved = true;
      } else length /= 2;
    }
    // a step that is only nearly Newton's may lead upwards; an exact one does not, until the least is reached
    if (!improved && careful) break;
    stuck = !improved || length < short;
    careful = !improved && at.isExact;
    loosest = length < short ? loosest / 10 : loose;
  }
  const weights = yield* multiplied('weights', at.shares);
  const shares = new Float64Array(x.count);
  for (let i = 0; i < n; i++) shares[rows[i]!] = at.shares[i]!;
  // those that begin from here need it where they begin
  if (!from) condition = preconditioner(x, rows, pullsAt(at, options).root);
  return { weights: weights.slice(), intercept: at.intercept, shares, condition };
}

/** Where a fit has come: shares, scores and probabilities by row listed. */
interface Place {
  shares: Float64Array;
  scores: Float64Array;
  probabilities: Float64Array;
  intercept: number;
  /** What is to be as small as can be. */
  objective: number;
  /** Whether the scores are what the shares make them, or only nearly, as they were added up in numbers of 32 bits. */
  isExact: boolean;
}

function placeAt(
  shares: Float64Array,
  scores: Float64Array,
  intercept: number,
  isExact: boolean,
  { rows, labels, importance, c }: LogisticOptions,
): Place {
  const probabilities = new Float64Array(rows.length);
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
  objective += Math.log(factors);
  return { shares, scores, probabilities, intercept, objective, isExact };
}

const MOST_FACTORS = 64;

/** Shares with the scores that they make. */
function* scored(
  shares: Float64Array,
  intercept: number,
  options: LogisticOptions,
): Waiting<Place> {
  const product = yield* multiplied('kernel', shares);
  const scores = product.map((score) => score + intercept);
  return placeAt(shares, scores, intercept, true, options);
}

/** What the rows' shares were in another model; its other rows are missed evenly by all, so that the sum is none. */
function sharesFrom({ shares }: LogisticFit, rows: Int32Array): Float64Array {
  const begun = Float64Array.from(rows, (row) => shares[row]!);
  const mean = begun.reduce((sum, share) => sum + share, 0) / rows.length;
  return begun.map((share) => share - mean);
}

/**
 * S, how far the shares are from where the scores pull them, by S (the residual), all in all, and what they are pulled
 * to by itself and summed.
 */
function pullsAt(
  { shares, probabilities }: Place,
  { rows, labels, importance, c }: LogisticOptions,
) {
  const root = new Float64Array(rows.length);
  const residual = new Float64Array(rows.length);
  const pull = new Float64Array(rows.length);
  let [squares, pulled] = [0, 0];
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const p = probabilities[i]!;
    const weight = c * importance[row]!;
    const to = weight * (labels[row]! - p);
    const off = to - shares[i]!;
    pull[i] = to;
    root[i] = Math.max(leastRoot, Math.sqrt(weight * p * (1 - p)));
    residual[i] = off / root[i]!;
    squares += off * off;
    pulled += to;
  }
  return { root, residual, pull, pulled, distance: Math.sqrt(squares) };
}

type Solution = Pick<RoughSolution, 'change' | 'intercept' | 'product' | 'rounds'> & {
  isExact: boolean;
};

/** Solves an equation in numbers of 32 bits, and in such of 64 what these do not reach. */
function* solve(equation: Equation): Waiting<Solution> {
  const roughly = yield* solvedRoughly(equation);
  const { root } = equation;
  // numbers of 32 bits hold Σ u S = 0 only nearly, and what they miss would stay until the end
  addTo(roughly.change, -dot(root, roughly.change) / dot(root, root), root);
  if (roughly.isReached) return { ...roughly, isExact: false };
  return yield* solveExactly(equation, roughly.target > 0 ? roughly : undefined);
}

/**
 * Solves an equation by conjugate gradients that are held to the constraint by projection.
 *
 * @param led how far it was led already
 * @see Gould, Hribar & Nocedal (2001) On the solution of equality constrained quadratic programming problems arising
 *   in optimization
 */
function* solveExactly(
  { rows, root, residual: given, divider, accuracy }: Equation,
  led?: RoughSolution,
): Waiting<Solution> {
  const n = rows.length;
  const change = led?.change ?? new Float64Array(n);
  const residual = given.slice();
  const scaled = new Float64Array(n);
  const reached = new Float64Array(n);
  const divided = new Float64Array(n);
  const conditioned = new Float64Array(n);
  let product: Float64Array = new Float64Array(n);
  if (led) {
    multiply(scaled, root, change);
    product = (yield* multiplied('kernel', scaled)).slice();
    afterKernel(reached, product, root, change);
    addTo(residual, -1, reached);
  }
  yield* divide(root, divider, divided, scaled);
  const across = dot(root, divided);
  let intercept = 0;
  /** Divides the residual, taking out of both what the intercept accounts for. */
  function* project(): Waiting<number> {
    yield* divide(residual, divider, conditioned, scaled);
    const more = dot(root, conditioned) / across;
    intercept += more;
    addTo(residual, -more, root);
    addTo(conditioned, -more, divided);
    return dot(residual, conditioned);
  }
  let rho = yield* project();
  const direction = conditioned.slice();
  const target = led?.target ?? accuracy * accuracy * rho;
  let rounds = led?.rounds ?? 0;
  for (; rounds < mostRounds && rho > target && rho > 1e-28; rounds++) {
    multiply(scaled, root, direction);
    const further = yield* multiplied('kernel', scaled);
    afterKernel(reached, further, root, direction);
    const alpha = rho / dot(direction, reached);
    addTo(change, alpha, direction);
    addTo(product, alpha, further);
    addTo(residual, -alpha, reached);
    const next = yield* project();
    turn(direction, next / rho, conditioned);
    rho = next;
  }
  return { change, intercept, product, isExact: true, rounds };
}

function dividerOf({ root, diagonal, factored }: Condition, rows: Int32Array): Divider {
  const inverse = new Float64Array(rows.length);
  const rooted = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    inverse[i] = 1 / diagonal[row]!;
    rooted[i] = root[row]! / diagonal[row]!;
  }
  return { inverse, rooted, factored };
}

/** Divides nearly by I + S K S. What is in `scaled` is lost. */
function* divide(
  vector: Float64Array,
  { inverse, rooted, factored }: Divider,
  into: Float64Array,
  scaled: Float64Array,
): Waiting<void> {
  multiply(into, inverse, vector);
  if (factored.length === 0) return;
  multiply(scaled, rooted, vector);
  const common = yield* multiplied('toCommon', scaled);
  const solved = solveCholesky(factored, common);
  takeBack(into, rooted, yield* multiplied('fromCommon', solved));
}

// each in a function of its own: inside a generator the engine would not make them fast

function multiply(into: Float64Array, x: Float64Array, y: Float64Array): void {
  for (let i = 0; i < into.length; i++) into[i] = x[i]! * y[i]!;
}

/** into = vector + S · product */
function afterKernel(
  into: Float64Array,
  product: Float64Array,
  root: Float64Array,
  vector: Float64Array,
): void {
  for (let i = 0; i < into.length; i++) into[i] = vector[i]! + root[i]! * product[i]!;
}

/** x += length · y */
function addTo(x: Float64Array, length: number, y: Float64Array): void {
  for (let i = 0; i < x.length; i++) x[i]! += length * y[i]!;
}

/** direction = conditioned + beta · direction */
function turn(direction: Float64Array, beta: number, conditioned: Float64Array): void {
  for (let i = 0; i < direction.length; i++) direction[i] = conditioned[i]! + beta * direction[i]!;
}

/** scores + length · (product + rise) */
function scoresAlong(
  scores: Float64Array,
  length: number,
  product: Float64Array,
  rise: number,
): Float64Array {
  const sum = new Float64Array(scores.length);
  for (let i = 0; i < sum.length; i++) sum[i] = scores[i]! + length * (product[i]! + rise);
  return sum;
}

/** x + length · y */
function sumOf(x: Float64Array, length: number, y: Float64Array): Float64Array {
  const sum = new Float64Array(x.length);
  for (let i = 0; i < x.length; i++) sum[i] = x[i]! + length * y[i]!;
  return sum;
}

/** into −= rooted · back */
function takeBack(into: Float64Array, rooted: Float64Array, back: Float64Array): void {
  for (let i = 0; i < into.length; i++) into[i]! -= rooted[i]! * back[i]!;
}
