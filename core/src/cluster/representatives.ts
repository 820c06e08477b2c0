import { evenly } from '../statistics/index.js';
import { cosineOf, type DenseRows } from './denseRows.js';

/**
 * Cosine from which two answers say much the same. On the demo, of two such answers in other words about half share one
 * of 26 codes where one in twenty does by chance (docs/notes/learning.md).
 */
export const LIKE = 0.6;
const MOST_CANDIDATES = 1500;
const MOST_JUDGED = 3000;

/**
 * The rows that together stand for most: each next one is that to which most of what nobody stands for yet is like, and
 * nearest (greedy facility location on cosines of `LIKE` and more: at least 63% of the best that there is). Of many rows,
 * evenly spaced ones are candidates, and all are counted.
 *
 * @param most how many rows to choose
 * @returns in the order in which they add most
 * @see Nemhauser, Wolsey & Fisher (1978) An analysis of approximations for maximizing submodular set functions
 */
export function representatives(rows: DenseRows, most: number): number[] {
  const all = Array.from({ length: rows.count }, (_, i) => i);
  const candidates = evenly(all, MOST_CANDIDATES);
  const judged = evenly(all, MOST_JUDGED);
  // by candidate, how like each judged row is to it
  const likeness = candidates.map((row) =>
    Float32Array.from(judged, (other) => {
      const cosine = cosineOf(rows, other, rows.values, row);
      return cosine >= LIKE ? cosine : 0;
    }),
  );
  const nearest = new Float32Array(judged.length);
  const chosen: number[] = [];
  while (chosen.length < most) {
    let best = -1;
    let gained = 1e-9;
    for (const [c, its] of likeness.entries()) {
      let gain = 0;
      for (let j = 0; j < its.length; j++) gain += Math.max(0, its[j]! - nearest[j]!);
      if (gain > gained) [best, gained] = [c, gain];
    }
    if (best < 0) break;
    chosen.push(candidates[best]!);
    const its = likeness[best]!;
    for (let j = 0; j < its.length; j++) nearest[j] = Math.max(nearest[j]!, its[j]!);
  }
  return chosen;
}

/**
 * Which rows are like each of some that were chosen, and like none before it: that itself first.
 *
 * @returns in the order given
 */
export function likeChosen(
  rows: DenseRows,
  chosen: readonly number[],
): { row: number; like: number[] }[] {
  const found = chosen.map((row) => ({ row, like: [row] }));
  for (let row = 0; row < rows.count; row++) {
    if (chosen.includes(row)) continue;
    const first = chosen.findIndex((one) => cosineOf(rows, row, rows.values, one) >= LIKE);
    if (first >= 0) found[first]!.like.push(row);
  }
  return found;
}
