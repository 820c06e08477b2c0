import type { Product } from './wasm/matrixProducts.js';
import type { Equation, Float32Solution } from './float32Solver.js';

/** What a fit asks for: a product with its rows, or an equation to be solved in 32 bits. */
export type SolverRequest = { product: Product; vector: Float64Array } | { equation: Equation };

/**
 * A fit that yields whenever it needs something computed, so that many fits share each pass over the rows. A product is
 * valid until the fit asks for the next of its kind.
 */
export type FitCoroutine<Result> = Generator<SolverRequest, Result, Float64Array | Float32Solution>;

export function* requestProduct(
  product: Product,
  vector: Float64Array,
): FitCoroutine<Float64Array> {
  const reply = yield { product, vector };
  if (reply instanceof Float64Array) return reply;
  throw new TypeError('A fit was given a solution in place of a product.');
}

export function* requestSolution(equation: Equation): FitCoroutine<Float32Solution> {
  const reply = yield { equation };
  if (!(reply instanceof Float64Array)) return reply;
  throw new TypeError('A fit was given a product in place of a solution.');
}
