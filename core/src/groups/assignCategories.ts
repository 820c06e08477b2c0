import { emptyBitset, fullBitset, subtract, unite, intersect, type Bitset } from './bitset.js';

/** Categories that rules assign respondents to. */
export interface ByRule {
  /** Rules of one label are one category. */
  rules: readonly { label: string }[];
  /** The category of those whom rules of several labels pick; null: they count in the first of them. */
  inSeveral: string | null;
  /** The category of those whom no rule picks; null: it is not stated. */
  inNone: string | null;
}

/** The categories in their order, each once. */
export const labelsByRule = ({ rules, inSeveral, inNone }: ByRule): string[] => [
  ...new Set(
    [...rules.map(({ label }) => label), inSeveral, inNone].filter((label) => label !== null),
  ),
];

/**
 * Distributes respondents among categories: nobody is in two of them.
 *
 * @param picked whom each rule picks, in the order of the rules
 * @param size how many respondents there are
 * @returns by label, in the order of `labelsByRule`; who is in none has no value
 */
export function assignCategories(
  by: ByRule,
  picked: readonly Bitset[],
  size: number,
): Map<string, Bitset> {
  const joined = new Map<string, Bitset>();
  by.rules.forEach(({ label }, r) => {
    joined.set(label, unite(joined.get(label) ?? emptyBitset(size), picked[r]!));
  });
  let any = emptyBitset(size);
  let several = emptyBitset(size);
  for (const members of joined.values()) {
    several = unite(several, intersect(any, members));
    any = unite(any, members);
  }
  const assigned = new Map(labelsByRule(by).map((label) => [label, emptyBitset(size)]));
  const add = (label: string, members: Bitset) =>
    assigned.set(label, unite(assigned.get(label)!, members));
  let taken = emptyBitset(size);
  for (const [label, members] of joined) {
    const own = subtract(members, by.inSeveral === null ? taken : several);
    add(label, own);
    taken = unite(taken, own);
  }
  if (by.inSeveral !== null) add(by.inSeveral, several);
  if (by.inNone !== null) add(by.inNone, subtract(fullBitset(size), any));
  return assigned;
}
