import {
  addTo,
  countOfBoth,
  emptyBitset,
  forEachInBoth,
  has,
  intersect,
  subtract,
  unite,
  type Bitset,
} from '../groups/index.js';
import { effectiveBase, wilsonInterval, type Interval } from '../statistics/index.js';

/** What a percentage is out of: people, or everything that is mentioned. */
export type BaseKind = 'settled' | 'answered' | 'asked' | 'mentions';

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
  /** Every code whose mentions count, for percentages of mentions: whatever rows are shown. */
  codes?: readonly ClothRow[];
  level?: number;
}

/** A base: how many people (or mentions), the sum of their weights and of its squares, and the effective size. */
export interface Base {
  people: number;
  weighted: number;
  squares: number;
  effective: number;
}

export interface ClothCell {
  /** Decided respondents of the column with a mention, unweighted. */
  people: number;
  /** Sum of their weights, and of the squares of these. */
  weighted: number;
  squares: number;
  /** Every mention of theirs, and with the weight of who makes it. */
  mentions: number;
  weightedMentions: number;
  base: Base;
  /** Weighted people over weighted base, 0 to 1; null when the base is empty. */
  share: number | null;
  /** Null for a share of mentions, which are not independent of each other. */
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
    const counted = countedIn(row, input);
    const repeats = repeatedMentions(row, counted);
    const bases = basesOf(row.decided);
    return input.columns.map(({ members }, c) => {
      const { people, weighted, squares } = measureBase(counted, members, input.weights);
      const again = countRepeats(repeats, members, input.weights);
      const mentions = people + again.people;
      const weightedMentions = weighted + again.weighted;
      const base = bases[c]!;
      const isOfMentions = input.base === 'mentions';
      const part = isOfMentions ? weightedMentions : weighted;
      const share = base.weighted > 0 ? part / base.weighted : null;
      return {
        people,
        weighted,
        squares,
        mentions,
        weightedMentions,
        base,
        share,
        interval:
          share === null || isOfMentions
            ? null
            : wilsonInterval(share, base.effective, input.level),
      };
    });
  });
}

/** Whose mentions of a row count. */
const countedIn = ({ mentioned, decided }: ClothRow, { answered }: ClothInput): Bitset =>
  intersect(intersect(mentioned, decided), answered);

/** The base of every column; rows that are decided for the same people share theirs. */
function baseCounter(input: ClothInput): (decided: Bitset) => Base[] {
  const { answered, asked, base, columns, weights } = input;
  if (base === 'mentions') {
    const all = allMentions(input);
    return () => all;
  }
  const known = new Map<Bitset, Base[]>();
  return (decided) => {
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

/** Everything that is mentioned in each column, of whatever code. */
function allMentions(input: ClothInput): Base[] {
  const parts = (input.codes ?? input.rows).map((row) => {
    const counted = countedIn(row, input);
    return { counted, repeats: repeatedMentions(row, counted) };
  });
  return input.columns.map(({ members }) => {
    let [people, weighted] = [0, 0];
    for (const { counted, repeats } of parts) {
      const first = measureBase(counted, members, input.weights);
      const again = countRepeats(repeats, members, input.weights);
      people += first.people + again.people;
      weighted += first.weighted + again.weighted;
    }
    return { people, weighted, squares: weighted, effective: weighted };
  });
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
  return {
    key,
    mentioned: others.reduce((all, code) => unite(all, code.mentioned), first.mentioned),
    decided: others.reduce((all, code) => intersect(all, code.decided), first.decided),
    mentions: joined(codes.map(({ mentions }) => mentions)),
  };
}

/**
 * A code's row across several questions: people who mention it in any of them. Somebody is decided when decided in
 * every question that they answered.
 *
 * @param rows the code's row in each question, and who answered that
 */
export function acrossQuestions(
  key: string,
  rows: readonly { row: ClothRow; answered: Bitset }[],
): ClothRow {
  const [first] = rows;
  if (!first) throw new RangeError(`Code ${key} has no question to be counted in.`);
  const none = emptyBitset(32 * first.answered.length);
  const answeredAny = rows.reduce((all, { answered }) => unite(all, answered), none);
  const undecided = rows.reduce(
    (all, { row, answered }) => unite(all, subtract(answered, row.decided)),
    none,
  );
  return {
    key,
    // a mention counts where the answer that it is in is one
    mentioned: rows.reduce(
      (all, { row, answered }) => unite(all, intersect(row.mentioned, answered)),
      none,
    ),
    decided: subtract(answeredAny, undecided),
    mentions: joined(rows.map(({ row, answered }) => row.mentions.filter((i) => has(answered, i)))),
  };
}

function joined(parts: readonly Int32Array[]): Int32Array {
  const all = new Int32Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

/** People of a set who are in a group, with their weights. */
export function measureBase(set: Bitset, members: Bitset, weights: Float64Array | null): Base {
  const people = countOfBoth(set, members);
  if (!weights) return { people, weighted: people, squares: people, effective: people };
  let sum = 0;
  let squares = 0;
  forEachInBoth(set, members, (i) => {
    const weight = weights[i]!;
    sum += weight;
    squares += weight * weight;
  });
  return { people, weighted: sum, squares, effective: effectiveBase(sum, squares) };
}

/** Who makes the counted mentions after their first: few, where most people mention a thing once. */
function repeatedMentions({ mentions }: ClothRow, counted: Bitset): Int32Array {
  const seen = emptyBitset(32 * counted.length);
  return mentions.filter((i) => {
    if (!has(counted, i)) return false;
    if (has(seen, i)) return true;
    addTo(seen, i);
    return false;
  });
}

function countRepeats(
  repeats: Int32Array,
  members: Bitset,
  weights: Float64Array | null,
): { people: number; weighted: number } {
  let [people, weighted] = [0, 0];
  for (const i of repeats) {
    if (!has(members, i)) continue;
    people += 1;
    weighted += weights ? weights[i]! : 1;
  }
  return { people, weighted };
}
