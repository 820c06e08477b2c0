import type { SparseRows } from './features.js';
import { sigmoid, type LinearModel, type LogisticOptions } from './logistic.js';

/** How alike some rows are: the products of each with each, n × n. */
export interface Gram {
  /** Rows of the matrix, by place. */
  rows: readonly number[];
  placeOf: ReadonlyMap<number, number>;
  products: Float64Array;
}

export function gramOf(x: SparseRows, rows: readonly number[]): Gram {
  const n = rows.length;
  const products = new Float64Array(n * n);
  const dense = new Float64Array(x.columns);
  rows.forEach((row, i) => {
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++) dense[x.column[k]!] = x.value[k]!;
    for (let j = i; j < n; j++) {
      const other = rows[j]!;
      let dot = 0;
      for (let k = x.start[other]!; k < x.start[other + 1]!; k++)
        dot += x.value[k]! * dense[x.column[k]!]!;
      products[i * n + j] = dot;
      products[j * n + i] = dot;
    }
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++) dense[x.column[k]!] = 0;
  });
  return { rows, placeOf: new Map(rows.map((row, place) => [row, place])), products };
}

/** A model as a sum of the rows that it was fitted to: weights = Σ share · row. */
export interface KernelModel {
  places: Int32Array;
  shares: Float64Array;
  intercept: number;
}

/**
 * The same model as `fitLogistic`'s, found from the products of rows alone: with a few thousand rows or fewer that
 * takes a fraction of the time. Newton steps on f = Kα + b, each solved by conjugate gradients on the symmetric
 * I + √D K √D with the intercept eliminated; the step is halved while the objective would rise. Deterministic.
 *
 * @param options its rows must all be in the gram
 * @see Zhu & Hastie (2005) Kernel logistic regression and the import vector machine
 */
export function fitKernel(
  gram: Gram,
  options: Omit<LogisticOptions, 'from'>,
  from?: KernelModel,
): KernelModel {
  const { rows, labels, importance, c, tolerance = 1e-7 } = options;
  const n = rows.length;
  const places = Int32Array.from(rows, (row) => gram.placeOf.get(row)!);
  const kernel = partOf(gram, places);
  const truth = Float64Array.from(rows, (row) => labels[row]!);
  const weight = Float64Array.from(rows, (row) => importance[row]!);

  let shares = new Float64Array(n);
  let intercept = 0;
  if (from) {
    const known = new Map(Array.from(from.places, (place, i) => [place, from.shares[i]!]));
    shares = Float64Array.from(places, (place) => known.get(place) ?? 0);
    intercept = from.intercept;
  }
  let reached = times(kernel, shares);
  const objectiveAt = (alpha: Float64Array, product: Float64Array, b: number) => {
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const margin = (2 * truth[i]! - 1) * (product[i]! + b);
      sum +=
        weight[i]! * (Math.log1p(Math.exp(-Math.abs(margin))) + Math.max(0, -margin)) +
        (alpha[i]! * product[i]!) / (2 * c);
    }
    return sum;
  };
  let objective = objectiveAt(shares, reached, intercept);
  const scale = c * Math.sqrt(weight.reduce((sum, w) => sum + w * w, 0)) * 0.5;
  const [root, right, off] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  let border = new Float64Array(n);
  for (let step = 0; step < 100; step++) {
    for (let i = 0; i < n; i++) {
      const f = reached[i]! + intercept;
      const p = sigmoid(f);
      const pull = c * weight[i]! * (truth[i]! - p);
      root[i] = Math.max(1e-7, Math.sqrt(c * weight[i]! * p * (1 - p)));
      right[i] = root[i]! * f + pull / root[i]!;
      off[i] = shares[i]! - pull;
    }
    const distance = Math.sqrt(off.reduce((sum, value) => sum + value * value, 0));
    if (distance <= tolerance * scale) break;
    const accuracy = Math.max(
      (0.3 * tolerance * scale) / distance,
      Math.min(0.1, distance / scale),
    );
    const start = shares.map((share, i) => share / root[i]! + intercept * border[i]!);
    const u = solve(kernel, root, right, start, accuracy);
    border = solve(kernel, root, root, border, Math.min(accuracy, 1e-3));
    const to = dot(root, u) / dot(root, border);
    const target = u.map((value, i) => root[i]! * (value - to * border[i]!));
    const along = target.map((value, i) => value - shares[i]!);
    const product = times(kernel, along);
    let length = 1;
    let improved = false;
    for (let halving = 0; halving < 40 && !improved; halving++) {
      const tried = shares.map((value, i) => value + length * along[i]!);
      const triedReached = reached.map((value, i) => value + length * product[i]!);
      const triedIntercept = intercept + length * (to - intercept);
      const triedObjective = objectiveAt(tried, triedReached, triedIntercept);
      if (triedObjective <= objective + 1e-12 * Math.abs(objective)) {
        [shares, reached, intercept] = [tried, triedReached, triedIntercept];
        objective = triedObjective;
        improved = true;
      } else length /= 2;
    }
    if (!improved) break;
  }
  return { places, shares, intercept };
}

/** Scores of rows that are in the gram. */
export function scoreByKernel(
  gram: Gram,
  { places, shares, intercept }: KernelModel,
  rows: ArrayLike<number>,
): Float64Array {
  const n = gram.rows.length;
  return Float64Array.from(rows, (row) => {
    const at = gram.placeOf.get(row)! * n;
    let sum = intercept;
    for (let i = 0; i < places.length; i++) sum += shares[i]! * gram.products[at + places[i]!]!;
    return sum;
  });
}

/** The model as weights of columns. */
export function asLinear(
  x: SparseRows,
  gram: Gram,
  { places, shares, intercept }: KernelModel,
): LinearModel {
  const weights = new Float64Array(x.columns);
  places.forEach((place, i) => {
    const row = gram.rows[place]!;
    for (let k = x.start[row]!; k < x.start[row + 1]!; k++)
      weights[x.column[k]!]! += shares[i]! * x.value[k]!;
  });
  return { weights, intercept };
}

function partOf(gram: Gram, places: Int32Array): Float64Array {
  const [n, m] = [gram.rows.length, places.length];
  const part = new Float64Array(m * m);
  for (let i = 0; i < m; i++)
    for (let j = 0; j < m; j++) part[i * m + j] = gram.products[places[i]! * n + places[j]!]!;
  return part;
}

/** Solves (I + S K S) x = right by conjugate gradients, S being diagonal. */
function solve(
  kernel: Float64Array,
  root: Float64Array,
  right: Float64Array,
  start: Float64Array,
  accuracy: number,
): Float64Array<ArrayBuffer> {
  const n = right.length;
  const scaled = new Float64Array(n);
  const apply = (vector: Float64Array) => {
    for (let i = 0; i < n; i++) scaled[i] = root[i]! * vector[i]!;
    const product = times(kernel, scaled);
    for (let i = 0; i < n; i++) product[i] = vector[i]! + root[i]! * product[i]!;
    return product;
  };
  const solution = Float64Array.from(start);
  const left = apply(solution).map((value, i) => right[i]! - value);
  const direction = Float64Array.from(left);
  let rho = dot(left, left);
  const target = accuracy * accuracy * rho;
  for (let step = 0; step < 300 && rho > target && rho > 1e-28; step++) {
    const product = apply(direction);
    const alpha = rho / dot(direction, product);
    for (let i = 0; i < n; i++) {
      solution[i]! += alpha * direction[i]!;
      left[i]! -= alpha * product[i]!;
    }
    const next = dot(left, left);
    const beta = next / rho;
    for (let i = 0; i < n; i++) direction[i] = left[i]! + beta * direction[i]!;
    rho = next;
  }
  return solution;
}

/** A square symmetric matrix times a vector. */
function times(matrix: Float64Array, vector: Float64Array): Float64Array<ArrayBuffer> {
  const n = vector.length;
  const product = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    // four sums at a time: one would wait for itself
    let a = 0;
    let b = 0;
    let c = 0;
    let d = 0;
    const at = i * n;
    let j = 0;
    for (; j + 3 < n; j += 4) {
      a += matrix[at + j]! * vector[j]!;
      b += matrix[at + j + 1]! * vector[j + 1]!;
      c += matrix[at + j + 2]! * vector[j + 2]!;
      d += matrix[at + j + 3]! * vector[j + 3]!;
    }
    for (; j < n; j++) a += matrix[at + j]! * vector[j]!;
    product[i] = a + b + c + d;
  }
  return product;
}

function dot(x: Float64Array, y: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * y[i]!;
  return sum;
}
