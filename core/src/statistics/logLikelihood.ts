/**
 * The log-likelihood statistic of a table of two by two: how much more it says that rows and columns go together than
 * that they do not. Without a link it follows the chi-square distribution with one degree of freedom.
 *
 * @param both how many are in the first row and the first column
 * @param row how many are in the first row
 * @param column how many are in the first column
 * @param all how many there are
 * @returns G², 0 or more; the direction is in `both` against row · column / all
 * @see Dunning (1993) Accurate methods for the statistics of surprise and coincidence
 */
export function logLikelihood(both: number, row: number, column: number, all: number): number {
  const cell = (count: number, ofRow: number, ofColumn: number) =>
    count > 0 ? count * Math.log((count * all) / (ofRow * ofColumn)) : 0;
  const sum =
    cell(both, row, column) +
    cell(row - both, row, all - column) +
    cell(column - both, all - row, column) +
    cell(all - row - column + both, all - row, all - column);
  return Math.max(0, 2 * sum);
}
