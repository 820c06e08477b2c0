import type { Product } from './lanes.js';
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
const rough = 1e-3;
/**
 * This near to the end, against the farthest, scores are worked out in numbers of 64 bits after every step; before, what
 * the rounds of the step came by is added to them.
 */
const near = 1e-3;
const mostHalvings = 30;
/** Far from the end a step need not be solved any nearer; one that led only so far along its way is followed by a nearer one. */
const loose = 0.1;
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
  let rounds = 0;
  let stuck = false;
  let careful = false;
  let loosest = loose;
  const farthest = 0.5 * c * Math.sqrt(rows.reduce((sum, row) => sum + importance[row]! ** 2, 0));
  for (let step = 0; step < 100; step++) {
    const { root, right, pull, distance } = newtonAt(at, options);
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
    if (!condition || rounds > roundsBeforeAnew || careful)
      condition = preconditioner(x, rows, root);
    const solved = yield* solveNewton(rows, at, { root, right, condition, accuracy, mayBeRough });
    rounds = solved.rounds;
    const along = solved.solution.map((value, i) => root[i]! * value - at.shares[i]!);
    const isAddedUp = solved.isExact || !isNear;
    const product = isAddedUp ? solved.product : yield* multiplied('kernel', along);
    const rise = solved.intercept - at.intercept;
    const risen = product.map((score) => score + rise);
    const slope = (dot(at.shares, product) - dot(pull, risen)) / c;
    let length = 1;
    let improved = false;
    for (let halving = 0; halving < mostHalvings && slope < 0 && !improved; halving++) {
      const tried = placeAt(
        sumOf(at.shares, length, along),
        sumOf(at.scores, length, risen),
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
  rows.forEach((row, i) => (shares[row]! += at.shares[i]!));
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
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const score = scores[i]!;
    // of the label that is less likely
    const odds = Math.exp(-Math.abs(score));
    const less = odds / (1 + odds);
    probabilities[i] = score >= 0 ? 1 - less : less;
    const isLess = score >= 0 !== (labels[row] === 1);
    const loss = Math.log1p(odds) + (isLess ? Math.abs(score) : 0);
    objective += importance[row]! * loss + (shares[i]! * (score - intercept)) / (2 * c);
  }
  return { shares, scores, probabilities, intercept, objective, isExact };
}

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
 * S, what (I + S K S) u + b S should be of the next shares u S and intercept b, and how far the shares are from where
 * the scores pull them.
 */
function newtonAt(
  { shares, scores, probabilities }: Place,
  { rows, labels, importance, c }: LogisticOptions,
) {
  const root = new Float64Array(rows.length);
  const right = new Float64Array(rows.length);
  const pull = new Float64Array(rows.length);
  let squares = 0;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const p = probabilities[i]!;
    pull[i] = c * importance[row]! * (labels[row]! - p);
    root[i] = Math.max(leastRoot, Math.sqrt(c * importance[row]! * p * (1 - p)));
    right[i] = root[i]! * scores[i]! + pull[i]! / root[i]!;
    squares += (shares[i]! - pull[i]!) ** 2;
  }
  return { root, right, pull, distance: Math.sqrt(squares) };
}

interface NewtonStep {
  root: Float64Array;
  right: Float64Array;
  condition: Condition;
  /** How near to the solution, against where it starts. */
  accuracy: number;
  mayBeRough: boolean;
}

interface NewtonSolution {
  /** u and b. */
  solution: Float64Array;
  intercept: number;
  /** K times what the shares change by; whether in numbers of 64 bits. */
  product: Float64Array;
  isExact: boolean;
  rounds: number;
}

/** Solves (I + S K S) u + b S = right with Σ u S = 0 for u and b. */
function* solveNewton(
  rows: Int32Array,
  { shares, scores, intercept }: Place,
  { root, right, condition, accuracy, mayBeRough }: NewtonStep,
): Waiting<NewtonSolution> {
  const start = shares.map((share, i) => share / root[i]!);
  // K times the shares is what the scores are without the intercept
  const before = scores.map((score) => score - intercept);
  const divider = dividerOf(condition, rows);
  const exactly: ExactEquation = { rows, root, right, start, divider, accuracy, before };
  if (!mayBeRough) return yield* solveExactly(exactly);
  const residual = new Float64Array(rows.length);
  afterKernel(residual, before, root, start);
  for (let i = 0; i < residual.length; i++) residual[i] = right[i]! - residual[i]!;
  const roughly = yield* solvedRoughly({ rows, root, start, residual, divider, accuracy });
  // numbers of 32 bits hold Σ u S = 0 only nearly, and what they miss would stay until the end
  addTo(roughly.solution, -dot(root, roughly.solution) / dot(root, root), root);
  if (roughly.isReached) return { ...roughly, isExact: false };
  return yield* solveExactly(exactly, roughly);
}

interface ExactEquation extends Omit<Equation, 'residual'> {
  right: Float64Array;
  /** K S start. */
  before: Float64Array;
}

/**
 * Solves by conjugate gradients that are held to the constraint by projection.
 *
 * @param led how far it was led already; nothing where its target is 0
 * @see Gould, Hribar & Nocedal (2001) On the solution of equality constrained quadratic programming problems arising
 *   in optimization
 */
function* solveExactly(
  { rows, root, right, start, divider, accuracy, before }: ExactEquation,
  led?: RoughSolution,
): Waiting<NewtonSolution> {
  const n = rows.length;
  const isLed = led !== undefined && led.target > 0;
  const solution = isLed ? led.solution : start;
  const scaled = new Float64Array(n);
  const reached = new Float64Array(n);
  const divided = new Float64Array(n);
  const conditioned = new Float64Array(n);
  let product: Float64Array = new Float64Array(n);
  let begun = before;
  if (isLed) {
    multiply(scaled, root, solution);
    begun = yield* multiplied('kernel', scaled);
    product = sumOf(begun, -1, before);
  }
  afterKernel(reached, begun, root, solution);
  const residual = sumOf(right, -1, reached);
  yield* divide(root, divider, divided, scaled);
  const across = dot(root, divided);
  let found = 0;
  /** Divides the residual, taking out of both what the intercept accounts for. */
  function* project(): Waiting<number> {
    yield* divide(residual, divider, conditioned, scaled);
    const more = dot(root, conditioned) / across;
    found += more;
    addTo(residual, -more, root);
    addTo(conditioned, -more, divided);
    return dot(residual, conditioned);
  }
  let rho = yield* project();
  const direction = conditioned.slice();
  const target = isLed ? led.target : accuracy * accuracy * rho;
  let rounds = isLed ? led.rounds : 0;
  for (; rounds < mostRounds && rho > target && rho > 1e-28; rounds++) {
    multiply(scaled, root, direction);
    const further = yield* multiplied('kernel', scaled);
    afterKernel(reached, further, root, direction);
    const alpha = rho / dot(direction, reached);
    addTo(solution, alpha, direction);
    addTo(product, alpha, further);
    addTo(residual, -alpha, reached);
    const next = yield* project();
    turn(direction, next / rho, conditioned);
    rho = next;
  }
  return { solution, intercept: found, product, isExact: true, rounds };
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
