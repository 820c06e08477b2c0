/** The values that coders gave a unit, one each, and how many units got just these. */
export interface Judged<Value> {
  values: readonly Value[];
  times: number;
}

/** Units as they come, each for itself. */
export const eachOnce = <Value>(units: readonly (readonly Value[])[]): Judged<Value>[] =>
  units.map((values) => ({ values, times: 1 }));

/**
 * Krippendorff's alpha of any number of coders, who need not all have judged everything.
 *
 * @param units one that a single coder judged is left out
 * @param distance of two values, 0 (the same) to 1
 * @param keyOf the same for values that are the same
 * @returns at most 1; null where no two values differ at all, so that it is not defined
 * @example
 *   krippendorffAlpha(eachOnce([[0, 1], [1, 1], [0, 1], [0, 0], [0, 0], [0, 1], [0, 0], [0, 0], [1, 0], [0, 0]]), (x, y) => Number(x !== y)) // 0.095 (Krippendorff 2011, section A)
 * @see Krippendorff (2004) Content analysis: an introduction to its methodology, 2nd edition, chapter 11
 */
export function krippendorffAlpha<Value>(
  units: readonly Judged<Value>[],
  distance: (one: Value, other: Value) => number,
  keyOf: (value: Value) => string = String,
): number | null {
  const pairable = units.filter(({ values }) => values.length > 1);
  const known = new Map<string, { value: Value; count: number }>();
  let n = 0;
  let observed = 0;
  for (const { values, times } of pairable) {
    n += times * values.length;
    for (const value of values) {
      const key = keyOf(value);
      const one = known.get(key) ?? { value, count: 0 };
      one.count += times;
      known.set(key, one);
    }
    observed += (times * sumOverPairs(values, distance)) / (values.length - 1);
  }
  // values that are the same are at no distance: counting each kind once is enough
  const expected = sumOverPairs(
    [...known.values()],
    (one, other) => one.count * other.count * distance(one.value, other.value),
  );
  return expected === 0 ? null : 1 - ((n - 1) * observed) / expected;
}

function sumOverPairs<One>(list: readonly One[], of: (one: One, other: One) => number): number {
  let sum = 0;
  list.forEach((one, i) => {
    for (let j = i + 1; j < list.length; j += 1) sum += of(one, list[j]!);
  });
  return sum;
}

/**
 * Gwet's AC1 of any number of coders: agreement beyond chance that stays readable where a value is rare.
 *
 * @param units values from 0 to `kinds` − 1
 * @param kinds how many different values there are, at least 2
 * @returns null where nothing was judged twice
 * @see Gwet (2008) Computing inter-rater reliability and its variance in the presence of high agreement; missing
 *   values as in Gwet (2014) Handbook of inter-rater reliability, 4th edition
 */
export function gwetAc1(units: readonly Judged<number>[], kinds: number): number | null {
  const judged = units.filter(({ values }) => values.length > 0);
  const all = judged.reduce((sum, { times }) => sum + times, 0);
  const shares = Array.from({ length: kinds }, () => 0);
  let agreed = 0;
  let twice = 0;
  for (const { values, times } of judged) {
    const counts = Array.from({ length: kinds }, () => 0);
    for (const value of values) counts[value]! += 1;
    counts.forEach((count, kind) => (shares[kind]! += (times * count) / values.length / all));
    if (values.length < 2) continue;
    twice += times;
    agreed += counts.reduce(
      (sum, count) => sum + (times * count * (count - 1)) / (values.length * (values.length - 1)),
      0,
    );
  }
  if (twice === 0) return null;
  const byChance = shares.reduce((sum, share) => sum + share * (1 - share), 0) / (kinds - 1);
  return (agreed / twice - byChance) / (1 - byChance);
}
