import type { SparseRows } from './features.js';
import {
  commonColumns,
  holdOfIntercept,
  preconditioner,
  type CommonColumns,
  type Condition,
} from './precondition.js';

/** A linear model: score = Σ weight · value + intercept. */
export interface LinearModel {
  weights: Float64Array;
  intercept: number;
}

/** A model with what the next fit of nearly the same rows can begin from besides. */
export interface LogisticFit extends LinearModel {
  condition: Condition | undefined;
}

export interface LogisticOptions {
  /** Rows to learn from. */
  rows: Int32Array;
  /** 1 or 0 for each row of the whole matrix. */
  labels: Uint8Array;
  /** How much each row of the whole matrix counts. */
  importance: Float64Array;
  /** Inverse strength of the L2 penalty. */
  c: number;
  /** Ends at a gradient this small against the one at no weights; 1e−7 unless told otherwise. */
  tolerance?: number;
  /** A model of nearly the same rows to begin from: sooner there, at the same model within the tolerance. */
  from?: LogisticFit;
}

const mostRounds = 200;
/** After so many rounds for one step a preconditioner is worth working out anew. */
const roundsBeforeAnew = 12;

/**
 * L2-penalised logistic regression with a free intercept: minimises
 * Σ sᵢ ln(1 + exp(−yᵢ fᵢ)) + |w|² / (2C) by Newton steps, each solved by conjugate gradients, with the
 * step halved while the objective would rise. Deterministic.
 *
 * @see Lin, Weng & Keerthi (2008) Trust region Newton method for large-scale logistic regression
 */
export function fitLogistic(x: SparseRows, options: LogisticOptions): LogisticFit {
  const { rows, labels, importance, c, from, tolerance = 1e-7 } = options;
  const size = x.columns + 1; // the last parameter is the intercept
  let parameters = new Float64Array(size);
  let scores: Float64Array = new Float64Array(rows.length);
  const atNone = Float64Array.from(rows, (row) => importance[row]! * (0.5 - labels[row]!));
  const gradientAtNone = transposeTimes(x, rows, atNone);
  const firstNorm = Math.sqrt(dot(gradientAtNone, gradientAtNone));
  if (from) {
    parameters.set(from.weights);
    parameters[x.columns] = from.intercept;
    scores = times(x, rows, parameters);
  }
  let objective = objectiveAt(parameters, scores, options);
  let condition = from?.condition;
  let common: CommonColumns | undefined;
  let rounds = 0;
  for (let step = 0; step < 100; step++) {
    const residual = new Float64Array(rows.length);
    const curvature = new Float64Array(rows.length);
    rows.forEach((row, i) => {
      const p = sigmoid(scores[i]!);
      residual[i] = importance[row]! * (p - labels[row]!);
      curvature[i] = importance[row]! * p * (1 - p);
    });
    const gradient = transposeTimes(x, rows, residual);
    for (let j = 0; j < x.columns; j++) gradient[j]! += parameters[j]! / c;
    const norm = Math.sqrt(dot(gradient, gradient));
    if (norm <= tolerance * firstNorm || norm < 1e-12) break;
    const accuracy = Math.min(0.1, Math.sqrt(norm / firstNorm));
    if (!condition || rounds > roundsBeforeAnew) {
      common ??= commonColumns(x, rows);
      condition = preconditioner(x, rows, curvature, common, c);
    }
    const solved = solveNewton(x, rows, { curvature, c, gradient, condition, accuracy });
    const { direction } = solved;
    rounds = solved.rounds;
    const along = times(x, rows, direction);
    const slope = dot(gradient, direction);
    let length = 1;
    let improved = false;
    for (let halving = 0; halving < 40 && !improved; halving++) {
      const tried = parameters.map((value, j) => value + length * direction[j]!);
      const triedScores = scores.map((value, i) => value + length * along[i]!);
      const triedObjective = objectiveAt(tried, triedScores, options);
      if (triedObjective <= objective + 1e-4 * length * slope) {
        parameters = tried;
        scores = triedScores;
        objective = triedObjective;
        improved = true;
      } else length /= 2;
    }
    if (!improved) break;
  }
  return { weights: parameters.slice(0, x.columns), intercept: parameters[x.columns]!, condition };
}

/** Scores of the rows. */
export function scoreRows(x: SparseRows, rows: Int32Array, model: LinearModel): Float64Array {
  const parameters = new Float64Array(x.columns + 1);
  parameters.set(model.weights);
  parameters[x.columns] = model.intercept;
  return times(x, rows, parameters);
}

export const sigmoid = (f: number): number =>
  f >= 0 ? 1 / (1 + Math.exp(-f)) : Math.exp(f) / (1 + Math.exp(f));

function objectiveAt(
  parameters: Float64Array,
  scores: Float64Array,
  { rows, labels, importance, c }: LogisticOptions,
): number {
  let loss = 0;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const margin = labels[row] === 1 ? scores[i]! : -scores[i]!;
    loss += importance[row]! * (Math.log1p(Math.exp(-Math.abs(margin))) + Math.max(0, -margin));
  }
  let squares = 0;
  for (let j = 0; j < parameters.length - 1; j++) squares += parameters[j]! * parameters[j]!;
  return loss + squares / (2 * c);
}

/** A Newton step: what it is worked out from. */
interface NewtonStep {
  /** By row. */
  curvature: Float64Array;
  c: number;
  gradient: Float64Array;
  condition: Condition;
  /** How near to the step's best direction, against the one at none. */
  accuracy: number;
}

/** Solves H d = −g by preconditioned conjugate gradients. @returns d, and how many rounds that took */
function solveNewton(
  x: SparseRows,
  rows: Int32Array,
  { curvature, c, gradient, condition, accuracy }: NewtonStep,
): { direction: Float64Array; rounds: number } {
  const size = gradient.length;
  const solution = new Float64Array(size);
  const residual = gradient.map((value) => -value);
  const conditioned = condition(residual);
  const direction = Float64Array.from(conditioned);
  let rho = dot(residual, conditioned);
  const target = accuracy * accuracy * rho;
  let rounds = 0;
  for (; rounds < mostRounds && rho > target && rho > 0; rounds++) {
    const along = times(x, rows, direction);
    for (let i = 0; i < along.length; i++) along[i]! *= curvature[i]!;
    const product = transposeTimes(x, rows, along);
    for (let j = 0; j < size - 1; j++) product[j]! += direction[j]! / c;
    product[size - 1]! += direction[size - 1]! * holdOfIntercept;
    const alpha = rho / dot(direction, product);
    for (let j = 0; j < size; j++) {
      solution[j]! += alpha * direction[j]!;
      residual[j]! -= alpha * product[j]!;
    }
    const next = condition(residual);
    const rhoNext = dot(residual, next);
    const beta = rhoNext / rho;
    for (let j = 0; j < size; j++) direction[j] = next[j]! + beta * direction[j]!;
    rho = rhoNext;
  }
  return { direction: solution, rounds };
}

function times(x: SparseRows, rows: Int32Array, parameters: Float64Array): Float64Array {
  const { start, column, value } = x;
  const product = new Float64Array(rows.length);
  const intercept = parameters[x.columns]!;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const end = start[row + 1]!;
    let sum = intercept;
    for (let k = start[row]!; k < end; k++) sum += value[k]! * parameters[column[k]!]!;
    product[i] = sum;
  }
  return product;
}

function transposeTimes(x: SparseRows, rows: Int32Array, factors: Float64Array): Float64Array {
  const { start, column, value } = x;
  const product = new Float64Array(x.columns + 1);
  let total = 0;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const end = start[row + 1]!;
    const factor = factors[i]!;
    for (let k = start[row]!; k < end; k++) product[column[k]!]! += value[k]! * factor;
    total += factor;
  }
  product[x.columns] = total;
  return product;
}

function dot(x: Float64Array, y: Float64Array): number {
  let sum = 0;
  for (let j = 0; j < x.length; j++) sum += x[j]! * y[j]!;
  return sum;
}
