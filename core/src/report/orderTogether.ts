/**
 * An order in which things that are alike stand together: the most alike are joined first, then clusters by the mean of
 * their likeness, each turned so that its ends that meet are alike.
 *
 * @param likeness by pair, symmetric; higher is more alike
 * @returns indices, each once
 * @see Sokal & Michener (1958) A statistical method for evaluating systematic relationships (average linkage)
 */
export function orderTogether(likeness: readonly (readonly number[])[]): number[] {
  let clusters = likeness.map((_, i) => [i]);
  const between = likeness.map((row) => [...row]);
  // `between` is by the first member of each cluster
  while (clusters.length > 1) {
    let best = { i: 0, j: 1, likeness: -Infinity };
    for (let i = 0; i < clusters.length; i++)
      for (let j = i + 1; j < clusters.length; j++) {
        const found = between[clusters[i]![0]!]![clusters[j]![0]!]!;
        if (found > best.likeness) best = { i, j, likeness: found };
      }
    const [one, other] = [clusters[best.i]!, clusters[best.j]!];
    const joined = joinEnds(one, other, likeness);
    for (const rest of clusters) {
      if (rest === one || rest === other) continue;
      const mean =
        (one.length * between[one[0]!]![rest[0]!]! +
          other.length * between[other[0]!]![rest[0]!]!) /
        joined.length;
      between[joined[0]!]![rest[0]!] = between[rest[0]!]![joined[0]!] = mean;
    }
    clusters = [...clusters.filter((rest) => rest !== one && rest !== other), joined];
  }
  return clusters[0] ?? [];
}

/** Two runs as one, turned so that the ends that meet are the most alike. */
function joinEnds(
  one: readonly number[],
  other: readonly number[],
  likeness: readonly (readonly number[])[],
): number[] {
  const ways = [one, one.toReversed()].flatMap((first) =>
    [other, other.toReversed()].map((second) => ({
      joined: [...first, ...second],
      met: likeness[first.at(-1)!]![second[0]!]!,
    })),
  );
  return ways.reduce((best, way) => (way.met > best.met ? way : best)).joined;
}
