/** The sum of the products of two vectors' numbers: the cosine of two of length 1. */
export function dotProduct(one: ArrayLike<number>, other: ArrayLike<number>): number {
  let sum = 0;
  for (let d = 0; d < one.length; d++) sum += one[d]! * other[d]!;
  return sum;
}
