import { randomSource, shuffle } from '../../statistics/index.js';

/**
 * Assigns examples to folds so that each fold has its share of positives, with examples of equal key
 * (duplicates) always in the same one.
 *
 * Groups of duplicates are shuffled, then those with positives are assigned first, each to the fold that has
 * the fewest positives (then the fewest examples).
 *
 * @returns the fold, 0 … folds − 1, of each example
 */
export function assignFolds(
  labels: Uint8Array,
  keys: readonly string[],
  folds: number,
  seed: number,
): Int32Array {
  const positivesIn = (group: number[]) => group.filter((i) => labels[i] === 1).length;
  const order = shuffle(groupEqual(keys), randomSource(seed)).sort(
    (x, y) => positivesIn(y) - positivesIn(x),
  );
  const positives = new Int32Array(folds);
  const sizes = new Int32Array(folds);
  const foldOf = new Int32Array(labels.length);
  for (const group of order) {
    let best = 0;
    for (let fold = 1; fold < folds; fold++) {
      const fewer = positivesIn(group) > 0 ? positives[fold]! - positives[best]! : 0;
      if (fewer < 0 || (fewer === 0 && sizes[fold]! < sizes[best]!)) best = fold;
    }
    for (const i of group) foldOf[i] = best;
    positives[best]! += positivesIn(group);
    sizes[best]! += group.length;
  }
  return foldOf;
}

/** The positions of equal keys together, in order of first appearance. */
export function groupEqual(keys: readonly string[]): number[][] {
  const groups = new Map<string, number[]>();
  keys.forEach((key, i) => {
    const group = groups.get(key);
    if (group) group.push(i);
    else groups.set(key, [i]);
  });
  return [...groups.values()];
}
