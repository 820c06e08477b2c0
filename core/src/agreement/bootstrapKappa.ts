import { randomSource, type Interval } from '../statistics/index.js';
import { cohenKappa } from './kappa.js';

/** Answers to which a code was given by both coders, by one of them alone, or by neither. */
export interface FourCells {
  both: number;
  first: number;
  second: number;
  neither: number;
}

const DRAWS = 2000;
const SEED = 1;

/**
 * An interval of Cohen's kappa that holds for rare codes too, where the large-sample error is too small and reaches
 * beyond 1: answers are drawn anew, as many as there are, 2,000 times, and the middle part of the kappas is taken. The
 * same cells always give the same interval.
 *
 * @param level 0 to 1
 * @returns null where every draw says the same, or too few of them have a kappa: that says nothing of how sure it is
 * @see Efron & Tibshirani (1993) An introduction to the bootstrap, chapter 13 (percentile interval)
 */
export function bootstrapKappa(
  { both, first, second, neither }: FourCells,
  level = 0.95,
): Interval | null {
  const n = both + first + second + neither;
  const next = randomSource(SEED);
  const ends = [both / n, (both + first) / n, (both + first + second) / n];
  const kappas: number[] = [];
  for (let draw = 0; draw < DRAWS; draw++) {
    const drawn = [0, 0, 0, 0];
    for (let i = 0; i < n; i++) {
      const at = next() / 2 ** 32;
      drawn[at < ends[0]! ? 0 : at < ends[1]! ? 1 : at < ends[2]! ? 2 : 3]! += 1;
    }
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
