/**
 * How many letters must be inserted, deleted or replaced (Levenshtein 1966), up to a limit.
 *
 * @returns a number above `most` as soon as it is certain to be above it
 * @example
 *   editDistance('kitten', 'sitting', 5) // 3
 */
export function editDistance(one: string, other: string, most: number): number {
  if (Math.abs(one.length - other.length) > most) return most + 1;
  let before = Array.from({ length: other.length + 1 }, (_, j) => j);
  for (let i = 1; i <= one.length; i++) {
    const now = [i];
    for (let j = 1; j <= other.length; j++)
      now.push(
        Math.min(
          before[j]! + 1,
          now[j - 1]! + 1,
          before[j - 1]! + (one[i - 1] === other[j - 1] ? 0 : 1),
        ),
      );
    if (Math.min(...now) > most) return most + 1;
    before = now;
  }
  return before[other.length]!;
}
