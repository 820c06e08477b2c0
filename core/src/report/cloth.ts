import {
  addTo,
  countOfBoth,
  emptyBitset,
  forEachInBoth,
  has,
  intersect,
  unite,
  type Bitset,
} from '../groups/index.js';
import { effectiveBase, wilsonInterval, type Interval } from '../statistics/index.js';

/** What a percentage is out of. */
export type BaseKind = 'settled' | 'answered' | 'asked';

/** A row of the cloth: a code, or a theme with what its codes have in common. */
export interface ClothRow {
  key: string;
  /** Respondents with at least one mention. */
  mentioned: Bitset;
  /** Respondents for whom this row is decided: settled, or every suggestion of the code decided. */
  decided: Bitset;
  /** The respondent of each mention, one entry a mention. */
  mentions: Int32Array;
}

export interface ClothInput {
  rows: ClothRow[];
  /** Columns: the total and the groups. */
  columns: { key: string; members: Bitset }[];
  asked: Bitset;
  answered: Bitset;
  /** One weight a respondent, or null when everybody counts once. */
  weights: Float64Array | null;
  base: BaseKind;
  level?: number;
}

/** A base: how many people, their weights' sum, and the effective size. */
export interface Base {
  people: number;
  weighted: number;
  effective: number;
}

export interface ClothCell {
  /** Decided respondents of the column with a mention, unweighted. */
  people: number;
  /** Sum of their weights. */
  weighted: number;
  /** Every mention of theirs, unweighted. */
  mentions: number;
  base: Base;
  /** Weighted people over weighted base, 0 to 1; null when the base is empty. */
  share: number | null;
  interval: Interval | null;
}

/**
 * Counts people and mentions of every row in every column.
 *
 * A respondent counts once however often a code is mentioned. Only those for whom the row is decided
 * count; the base is these (`settled`), all who answered, or all who were asked.
 *
 * @returns cells[row][column]
 * @see Wilson (1927) for the interval; Kish (1965) for the effective base it uses when weighted
 */
export function countCloth(input: ClothInput): ClothCell[][] {
  const basesOf = baseCounter(input);
  return input.rows.map((row) => {
    const decided = intersect(row.decided, input.answered);
    const mentioned = intersect(row.mentioned, decided);
    const repeats = repeatedMentions(row);
    const bases = basesOf(row.decided);
    return input.columns.map(({ members }, c) => {
      const { people, weighted } = measureBase(mentioned, members, input.weights);
      const base = bases[c]!;
      const share = base.weighted > 0 ? weighted / base.weighted : null;
      return {
        people,
        weighted,
        mentions: people + countRepeats(repeats, mentioned, members),
        base,
        share,
        interval: share === null ? null : wilsonInterval(share, base.effective, input.level),
      };
    });
  });
}

/** The base of every column; rows that are decided for the same people share theirs. */
function baseCounter({ answered, asked, base, columns, weights }: ClothInput) {
  const known = new Map<Bitset, Base[]>();
  return (decided: Bitset): Base[] => {
    const out = { settled: decided, answered, asked }[base];
    let bases = known.get(out);
    if (!bases) {
      const people = base === 'settled' ? intersect(decided, answered) : out;
      bases = columns.map(({ members }) => measureBase(people, members, weights));
      known.set(out, bases);
    }
    return bases;
  };
}

/**
 * A theme's row: people who mention any of its codes, counted once; mentions are the sum. A respondent
 * is decided for the theme when decided for all of its codes.
 *
 * @throws RangeError when there are no codes
 */
export function rollUp(key: string, codes: readonly ClothRow[]): ClothRow {
  const [first, ...others] = codes;
  if (!first) throw new RangeError(`Theme ${key} has no codes to roll up.`);
  const mentions = new Int32Array(codes.reduce((sum, code) => sum + code.mentions.length, 0));
  let at = 0;
  for (const code of codes) {
    mentions.set(code.mentions, at);
    at += code.mentions.length;
  }
  return {
    key,
    mentioned: others.reduce((all, code) => unite(all, code.mentioned), first.mentioned),
    decided: others.reduce((all, code) => intersect(all, code.decided), first.decided),
    mentions,
  };
}

/** People of a set who are in a group, with their weights. */
export function measureBase(set: Bitset, members: Bitset, weights: Float64Array | null): Base {
  const people = countOfBoth(set, members);
  if (!weights) return { people, weighted: people, effective: people };
  let sum = 0;
  let squares = 0;
  forEachInBoth(set, members, (i) => {
    const weight = weights[i]!;
    sum += weight;
    squares += weight * weight;
  });
  return { people, weighted: sum, effective: effectiveBase(sum, squares) };
}

/** The respondents of mentions after their first: few, where most people mention a thing once. */
function repeatedMentions({ mentioned, mentions }: ClothRow): Int32Array {
  const seen = emptyBitset(32 * mentioned.length);
  return mentions.filter((i) => {
    if (has(seen, i)) return true;
    addTo(seen, i);
    return false;
  });
}

function countRepeats(repeats: Int32Array, mentioned: Bitset, members: Bitset): number {
  let count = 0;
  for (const i of repeats) if (has(mentioned, i) && has(members, i)) count += 1;
  return count;
}
