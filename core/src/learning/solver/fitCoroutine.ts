import type { Product } from './wasm/matrixProducts.js';
import type { Equation, Float32Solution } from './float32Solver.js';

/** What a fit waits for: a product with the rows to learn from, or an equation solved in numbers of 32 bits. */
export type SolverRequest = { product: Product; vector: Float64Array } | { equation: Equation };

/**
 * A fit that stops at each thing it needs, so that many fits can go through the rows together. A product may be written
 * over when it asks for the next of that kind.
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
