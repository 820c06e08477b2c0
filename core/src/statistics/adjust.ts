/** How p-values of several tests are corrected for their number. */
export type Correction = 'holm' | 'benjamini_hochberg' | 'none';

/**
 * Corrects the p-values of a family of tests.
 *
 * @returns in the order given
 * @example
 *   adjust([0.01, 0.04, 0.03], 'holm') // [0.03, 0.06, 0.06]
 * @see Holm (1979) A simple sequentially rejective multiple test procedure; Benjamini & Hochberg (1995) Controlling
 *   the false discovery rate
 */
export function adjust(p: readonly number[], correction: Correction): number[] {
  if (correction === 'none') return [...p];
  const m = p.length;
  // a probability of 1 stays 1 whatever the correction, and most of a large table are
  const adjusted = new Array<number>(m).fill(1);
  const rising: number[] = [];
  for (let i = 0; i < m; i++) if (p[i]! < 1) rising.push(i);
  rising.sort((x, y) => p[x]! - p[y]!);
  if (correction === 'holm') {
    let highest = 0;
    rising.forEach((i, rank) => {
      highest = Math.max(highest, (m - rank) * p[i]!);
      adjusted[i] = Math.min(1, highest);
    });
    return adjusted;
  }
  let lowest = 1;
  for (let rank = rising.length - 1; rank >= 0; rank--) {
    const i = rising[rank]!;
    lowest = Math.min(lowest, (m / (rank + 1)) * p[i]!);
    adjusted[i] = lowest;
  }
  return adjusted;
}
