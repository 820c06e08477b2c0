import { randomSource, type Interval } from '../statistics/index.js';
import { cohenKappa, type FourCells } from './kappa.js';

const DRAWS = 1000;
const SEED = 1;

/**
 * An interval of Cohen's kappa that holds for rare codes too, where the large-sample error is too small and reaches
 * beyond 1: answers are drawn again, as many as there are, 1,000 times, and the middle part of the kappas is taken. The
 * same cells always give the same interval.
 *
 * @param level 0 to 1
 * @returns null where every draw says the same, or too few of them have a kappa: that says nothing of how sure it is
 * @see Efron & Tibshirani (1993) An introduction to the bootstrap, chapter 13 (percentile interval)
 */
export function bootstrapKappa(cells: FourCells, level = 0.95): Interval | null {
  const counts = [cells.both, cells.first, cells.second, cells.neither];
  const n = counts.reduce((sum, count) => sum + count, 0);
  // a rare code leaves most answers in one cell: only those outside it are drawn one by one
  const most = counts.indexOf(Math.max(...counts));
  const others = counts.flatMap((count, cell) => (cell === most ? [] : [{ cell, count }]));
  const outside = n - counts[most]!;
  if (outside === 0) return null;
  const next = randomSource(SEED);
  const uniform = () => (next() + 0.5) / 2 ** 32;
  const skipping = Math.log1p(-outside / n);
  const kappas: number[] = [];
  for (let draw = 0; draw < DRAWS; draw++) {
    const drawn = [0, 0, 0, 0];
    let left = n;
    for (;;) {
      // how many stay in the common cell before the next one outside: geometric
      left -= 1 + Math.floor(Math.log(uniform()) / skipping);
      if (left < 0) break;
      let at = uniform() * outside;
      drawn[(others.find(({ count }) => (at -= count) < 0) ?? others[0]!).cell]! += 1;
    }
    drawn[most] = n - drawn.reduce((sum, count) => sum + count, 0);
    const { kappa } = cohenKappa([
      [drawn[0]!, drawn[1]!],
      [drawn[2]!, drawn[3]!],
    ]);
    if (kappa !== null) kappas.push(kappa);
  }
  if (kappas.length < DRAWS / 2) return null;
  kappas.sort((x, y) => x - y);
  const at = (share: number) => kappas[Math.round(share * (kappas.length - 1))]!;
  const [low, high] = [at((1 - level) / 2), at((1 + level) / 2)];
  return low === high ? null : [low, high];
}
