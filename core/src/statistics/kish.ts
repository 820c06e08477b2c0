/**
 * The size of an unweighted sample that would be as precise as the weighted one: (Σw)² / Σw².
 *
 * @returns 0 when all weights are zero
 * @example
 *   effectiveBase(10, 20) // 5
 * @see Kish (1965) Survey Sampling
 */
export function effectiveBase(sumOfWeights: number, sumOfSquaredWeights: number): number {
  return sumOfSquaredWeights > 0 ? (sumOfWeights * sumOfWeights) / sumOfSquaredWeights : 0;
}
