/**
 * Distance of two sets of codes: 0 the same, 1 with nothing in common; less where one contains the other than where
 * each has something of its own. Two empty sets are the same: both said that nothing applies.
 *
 * @example
 *   masiDistance(new Set(['a', 'b']), new Set(['a'])) // 0.6667
 * @see Passonneau (2006) Measuring agreement on set-valued items (MASI) for semantic and pragmatic annotation
 */
export function masiDistance(one: ReadonlySet<string>, other: ReadonlySet<string>): number {
  const both = [...one].filter((code) => other.has(code)).length;
  const any = one.size + other.size - both;
  if (any === 0) return 0;
  const contained = both === Math.min(one.size, other.size);
  const monotone = both === any ? 1 : both === 0 ? 0 : contained ? 2 / 3 : 1 / 3;
  return 1 - (both / any) * monotone;
}
