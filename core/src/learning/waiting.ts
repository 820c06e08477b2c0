import type { Product } from './laneProducts.js';
import type { Equation, RoughSolution } from './roughSolver.js';

/** What a fit waits for: a product with the rows to learn from, or an equation solved in numbers of 32 bits. */
export type Wanted = { product: Product; vector: Float64Array } | { equation: Equation };

/**
 * A fit that stops at each thing it needs, so that many fits can go through the rows together. A product may be written
 * over when it asks for the next of that kind.
 */
export type Waiting<Result> = Generator<Wanted, Result, Float64Array | RoughSolution>;

export function* multiplied(product: Product, vector: Float64Array): Waiting<Float64Array> {
  const given = yield { product, vector };
  if (given instanceof Float64Array) return given;
  throw new TypeError('A fit was given a solution in place of a product.');
}

export function* solvedRoughly(equation: Equation): Waiting<RoughSolution> {
  const given = yield { equation };
  if (!(given instanceof Float64Array)) return given;
  throw new TypeError('A fit was given a product in place of a solution.');
}
