import type { SparseRows } from './features.js';

/** A linear model: score = Σ weight · value + intercept. */
export interface LinearModel {
  weights: Float64Array;
  intercept: number;
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
  from?: LinearModel;
}

/**
 * L2-penalised logistic regression with a free intercept: minimises
 * Σ sᵢ ln(1 + exp(−yᵢ fᵢ)) + |w|² / (2C) by Newton steps, each solved by conjugate gradients, with the
 * step halved while the objective would rise. Deterministic.
 *
 * @see Lin, Weng & Keerthi (2008) Trust region Newton method for large-scale logistic regression
 */
export function fitLogistic(x: SparseRows, options: LogisticOptions): LinearModel {
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
    const direction = solveNewton(
      x,
      rows,
      curvature,
      c,
      gradient,
      Math.min(0.1, Math.sqrt(norm / firstNorm)),
    );
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
  return { weights: parameters.slice(0, x.columns), intercept: parameters[x.columns]! };
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

/** Solves H d = −g by conjugate gradients with a diagonal preconditioner. */
function solveNewton(
  x: SparseRows,
  rows: Int32Array,
  curvature: Float64Array,
  c: number,
  gradient: Float64Array,
  accuracy: number,
): Float64Array {
  const size = gradient.length;
  const diagonal = new Float64Array(size).fill(1 / c);
  diagonal[size - 1] = 1e-10;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++)
      diagonal[x.column[k]!]! += curvature[i]! * x.value[k]! * x.value[k]!;
    diagonal[size - 1]! += curvature[i]!;
  }
  const solution = new Float64Array(size);
  const residual = new Float64Array(size);
  const direction = new Float64Array(size);
  let rho = 0;
  for (let j = 0; j < size; j++) {
    residual[j] = -gradient[j]!;
    direction[j] = residual[j]! / diagonal[j]!;
    rho += residual[j]! * direction[j]!;
  }
  const target = accuracy * accuracy * rho;
  for (let step = 0; step < 200 && rho > target && rho > 0; step++) {
    const along = times(x, rows, direction);
    for (let i = 0; i < along.length; i++) along[i]! *= curvature[i]!;
    const product = transposeTimes(x, rows, along);
    let curved = 0;
    for (let j = 0; j < size; j++) {
      product[j]! += direction[j]! * (j < size - 1 ? 1 / c : 1e-10);
      curved += direction[j]! * product[j]!;
    }
    const alpha = rho / curved;
    let next = 0;
    for (let j = 0; j < size; j++) {
      solution[j]! += alpha * direction[j]!;
      const left = residual[j]! - alpha * product[j]!;
      residual[j] = left;
      next += (left * left) / diagonal[j]!;
    }
    const beta = next / rho;
    for (let j = 0; j < size; j++)
      direction[j] = residual[j]! / diagonal[j]! + beta * direction[j]!;
    rho = next;
  }
  return solution;
}

function times(x: SparseRows, rows: Int32Array, parameters: Float64Array): Float64Array {
  const product = new Float64Array(rows.length);
  const intercept = parameters[x.columns]!;
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    let sum = intercept;
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++)
      sum += x.value[k]! * parameters[x.column[k]!]!;
    product[i] = sum;
  }
  return product;
}

function transposeTimes(x: SparseRows, rows: Int32Array, factors: Float64Array): Float64Array {
  const product = new Float64Array(x.columns + 1);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const factor = factors[i]!;
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++)
      product[x.column[k]!]! += x.value[k]! * factor;
    product[x.columns]! += factor;
  }
  return product;
}

function dot(x: Float64Array, y: Float64Array): number {
  let sum = 0;
  for (let j = 0; j < x.length; j++) sum += x[j]! * y[j]!;
  return sum;
}
