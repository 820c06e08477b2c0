/** How p-values of several tests are corrected for their number. */
export type Correction = 'holm' | 'benjamini_hochberg' | 'none';

/**
 * Corrects the p-values of a family of tests.
 *
 * @returns in the order given
 * @see Holm (1979) A simple sequentially rejective multiple test procedure; Benjamini & Hochberg (1995) Controlling
 *   the false discovery rate
 */
export function adjust(p: readonly number[], correction: Correction): number[] {
  if (correction === 'none') return [...p];
  const m = p.length;
  const adjusted = new Array<number>(m);
  if (correction === 'holm') {
    let highest = 0;
    [...p.keys()]
      .sort((x, y) => p[x]! - p[y]!)
      .forEach((i, rank) => {
        highest = Math.max(highest, (m - rank) * p[i]!);
        adjusted[i] = Math.min(1, highest);
      });
    return adjusted;
  }
  let lowest = 1;
  [...p.keys()]
    .sort((x, y) => p[y]! - p[x]!)
    .forEach((i, rank) => {
      lowest = Math.min(lowest, (m / (m - rank)) * p[i]!);
      adjusted[i] = lowest;
    });
  return adjusted;
}
