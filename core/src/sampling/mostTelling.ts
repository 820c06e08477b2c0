import type { SentenceVectors } from '../sentences/index.js';
import { orderBySimilarity } from '../similarity/index.js';

const SPARE = 4;

/**
 * The answers whose coding would teach a model most: those that it is least sure of (uncertainty sampling; Lewis
 * & Gale 1994), so chosen that they are unlike each other: of four times as many candidates, laid out by
 * similarity, every fourth is taken.
 *
 * @param texts the answers that are not coded yet
 * @param distance how far the model's probability for each is from even chances, at the nearest code; 0 … 0.5
 * @param size how many to choose
 * @param vectors sentence vectors of the answers; null where nothing is read for meaning
 * @returns indices into `texts`, in ascending order
 */
export function mostTelling(
  texts: readonly string[],
  distance: readonly number[],
  size: number,
  vectors: SentenceVectors | null = null,
): number[] {
  const candidates = leastSure(distance, size);
  if (candidates.length <= size) return candidates.sort((x, y) => x - y);
  const order = orderBySimilarity(
    candidates.map((i) => texts[i]!),
    vectors,
  ).map((place) => candidates[place]!);
  const step = order.length / size;
  return Array.from({ length: size }, (_, k) => order[Math.floor(k * step)]!).sort((x, y) => x - y);
}

/**
 * The answers among which `mostTelling` chooses, the least sure first.
 *
 * @returns indices into `distance`
 */
export const leastSure = (distance: readonly number[], size: number): number[] =>
  [...distance.keys()].sort((x, y) => distance[x]! - distance[y]! || x - y).slice(0, size * SPARE);
