import { addTo, dot, multiply } from './vectors.js';
import { solveCholesky, type Preconditioner } from './preconditioner.js';
import type { RestrictedPreconditioner, Equation, Float32Solution } from './float32Solver.js';
import { requestProduct, requestSolution, type FitCoroutine } from './fitCoroutine.js';

/** A solved step; u and K S u are in the arrays that the equation named. */
export interface SolvedStep {
  intercept: number;
  rounds: number;
  /** Whether it was solved in 64 bits. */
  isExact: boolean;
}

const MOST_ROUNDS = 300;

/** Solves an equation in 32 bits, and continues in 64 where that does not reach the tolerance. */
export function* solve(equation: Equation): FitCoroutine<SolvedStep> {
  const { intercept, rounds, target, isReached } = yield* requestSolution(equation);
  const { root, change } = equation;
  // in 32 bits Σ u S = 0 holds only approximately, and the error would stay until the end
  addTo(change, -dot(root, change) / dot(root, root), root);
  if (isReached) return { intercept, rounds, isExact: false };
  return yield* solveExactly(equation, target > 0 ? { target, rounds } : undefined);
}

/**
 * Solves an equation by projected preconditioned conjugate gradients in 64 bits.
 *
 * @param led the result in 32 bits to continue from: its target and its iterations
 * @see Gould, Hribar & Nocedal (2001) On the solution of equality constrained quadratic programming problems arising
 *   in optimization
 */
export function* solveExactly(
  { rows, root, residual: given, preconditioner, accuracy, change, product }: Equation,
  led?: Pick<Float32Solution, 'target' | 'rounds'>,
): FitCoroutine<SolvedStep> {
  const n = rows.length;
  const residual = given.slice();
  const scaled = new Float64Array(n);
  const reached = new Float64Array(n);
  const divided = new Float64Array(n);
  const conditioned = new Float64Array(n);
  product.fill(0);
  if (led) {
    multiply(scaled, root, change);
    product.set(yield* requestProduct('kernel', scaled));
    afterKernel(reached, product, root, change);
    addTo(residual, -1, reached);
  } else change.fill(0);
  yield* applyPreconditioner(root, preconditioner, divided, scaled);
  const across = dot(root, divided);
  let intercept = 0;
  /** Applies the preconditioner to the residual and projects out the intercept. */
  function* project(): FitCoroutine<number> {
    yield* applyPreconditioner(residual, preconditioner, conditioned, scaled);
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
  for (; rounds < MOST_ROUNDS && rho > target && rho > 1e-28; rounds++) {
    multiply(scaled, root, direction);
    const further = yield* requestProduct('kernel', scaled);
    afterKernel(reached, further, root, direction);
    const alpha = rho / dot(direction, reached);
    addTo(change, alpha, direction);
    addTo(product, alpha, further);
    addTo(residual, -alpha, reached);
    const next = yield* project();
    turn(direction, next / rho, conditioned);
    rho = next;
  }
  return { intercept, rounds, isExact: true };
}

export function restrictPreconditioner(
  { root, diagonal, factored }: Preconditioner,
  rows: Int32Array,
): RestrictedPreconditioner {
  const inverse = new Float64Array(rows.length);
  const rooted = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    inverse[i] = 1 / diagonal[row]!;
    rooted[i] = root[row]! / diagonal[row]!;
  }
  return { inverse, rooted, factored };
}

/** Applies the preconditioner. `scaled` is overwritten. */
function* applyPreconditioner(
  vector: Float64Array,
  { inverse, rooted, factored }: RestrictedPreconditioner,
  into: Float64Array,
  scaled: Float64Array,
): FitCoroutine<void> {
  multiply(into, inverse, vector);
  if (factored.length === 0) return;
  multiply(scaled, rooted, vector);
  const common = yield* requestProduct('toCommon', scaled);
  const solved = solveCholesky(factored, common);
  takeBack(into, rooted, yield* requestProduct('fromCommon', solved));
}

// each in a function of its own: V8 does not optimise loops inside generators

/** into = vector + S · product */
function afterKernel(
  into: Float64Array,
  product: Float64Array,
  root: Float64Array,
  vector: Float64Array,
): void {
  for (let i = 0; i < into.length; i++) into[i] = vector[i]! + root[i]! * product[i]!;
}

/** direction = conditioned + beta · direction */
function turn(direction: Float64Array, beta: number, conditioned: Float64Array): void {
  for (let i = 0; i < direction.length; i++) direction[i] = conditioned[i]! + beta * direction[i]!;
}

/** into −= rooted · back */
function takeBack(into: Float64Array, rooted: Float64Array, back: Float64Array): void {
  for (let i = 0; i < into.length; i++) into[i]! -= rooted[i]! * back[i]!;
}
