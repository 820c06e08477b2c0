import {
  addTo,
  countOfBoth,
  emptyBitset,
  forEachInBoth,
  has,
  intersect,
  isEmpty,
  subtract,
  unite,
  type Bitset,
} from '../groups/index.js';
import { effectiveBase, wilsonInterval, type Interval } from '../statistics/index.js';

/** What a percentage is out of: the people whose answers count, all who answered or were asked, or all mentions. */
export type BaseKind = 'settled' | 'answered' | 'asked' | 'mentions';

/** A row of a crosstab: a code, or a theme with what its codes have in common. */
export interface CrosstabRow {
  key: string;
  /** Respondents with at least one mention. */
  mentioned: Bitset;
  /** Respondents whose answers count in this row. */
  decided: Bitset;
  /** Those among them for whom it is not decided whether they mention it; null or left out for nobody. */
  undecided?: Bitset | null;
  /** Who mentions it again: one entry for each mention after a respondent's first. Few, mostly. */
  again: Int32Array;
}

export interface CrosstabInput {
  rows: CrosstabRow[];
  /** Columns: the total and the groups. */
  columns: { key: string; members: Bitset }[];
  asked: Bitset;
  answered: Bitset;
  /** One weight a respondent, or null when everybody counts once. */
  weights: Float64Array | null;
  base: BaseKind;
  /** Every code whose mentions count, for percentages of mentions: whatever rows are shown. */
  codes?: readonly CrosstabRow[];
  level?: number;
}

/** A base: how many people (or mentions), the sum of their weights and of its squares, and the effective size. */
export interface Base {
  people: number;
  weighted: number;
  squares: number;
  effective: number;
}

export interface CrosstabCell {
  /** Decided respondents of the column with a mention, unweighted. */
  people: number;
  /** Sum of their weights, and of the squares of these. */
  weighted: number;
  squares: number;
  /** Every mention of theirs, and with the weight of who makes it. */
  mentions: number;
  weightedMentions: number;
  base: Base;
  /** How many of the base are undecided: people who mention it are "at least" as many. */
  undecided: number;
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
export function countCrosstab(input: CrosstabInput): CrosstabCell[][] {
  const counter = columnCounter(input);
  const basesOf = baseCounter(input, counter);
  const decidedIn = decidedAmong(input.answered);
  const isOfMentions = input.base === 'mentions';
  return input.rows.map((row) => {
    const decided = decidedIn(row);
    const first = counter.people(row.mentioned, decided);
    const again = counter.list(row.again, decided);
    const bases = basesOf(row.decided);
    const undecided = row.undecided ? counter.people(row.undecided, decided).people : null;
    return input.columns.map((_, c) => {
      const [people, weighted] = [first.people[c]!, first.weighted[c]!];
      const weightedMentions = weighted + again.weighted[c]!;
      const base = bases[c]!;
      const share =
        base.weighted > 0 ? (isOfMentions ? weightedMentions : weighted) / base.weighted : null;
      return {
        people,
        weighted,
        squares: first.squares[c]!,
        mentions: people + again.people[c]!,
        weightedMentions,
        base,
        undecided: undecided?.[c] ?? 0,
        share,
        interval:
          share === null || isOfMentions
            ? null
            : wilsonInterval(share, base.effective, input.level),
      };
    });
  });
}

/** Sums by column: of people, of their weights, and of the squares of these. */
interface Sums {
  people: Float64Array;
  weighted: Float64Array;
  squares: Float64Array;
}
/**
 * Counts people by column, each looked at once however many columns there are: people who stand in the same columns are
 * of one kind, and are counted by kind first.
 */
function columnCounter({
  columns,
  asked,
  weights,
}: Pick<CrosstabInput, 'columns' | 'asked' | 'weights'>) {
  const { kindOf, columnsOf } = kindsOf(columns, 32 * asked.length);
  /** Sums by kind, those of one kind beside each other: people, and where there are weights these and their squares. */
  const begin = () => new Float64Array(3 * columnsOf.length);
  const end = (byKind: Float64Array): Sums => {
    const people = new Float64Array(columns.length);
    const weighted = weights ? new Float64Array(columns.length) : people;
    const squares = weights ? new Float64Array(columns.length) : people;
    for (let kind = 0; kind < columnsOf.length; kind++) {
      const at = 3 * kind;
      // most kinds of a large table are nobody's of a list
      if (byKind[at] === 0) continue;
      const its = columnsOf[kind]!;
      for (let k = 0; k < its.length; k++) {
        const c = its[k]!;
        people[c]! += byKind[at]!;
        if (!weights) continue;
        weighted[c]! += byKind[at + 1]!;
        squares[c]! += byKind[at + 2]!;
      }
    }
    return { people, weighted, squares };
  };
  return {
    /** Those who are in both of two sets. */
    people(set: Bitset, within: Bitset): Sums {
      const byKind = begin();
      if (weights) addWeighted(set, within, kindOf, weights, byKind);
      else addPeople(set, within, kindOf, byKind);
      return end(byKind);
    },
    /** Those of a list who are in a set; who stands in the list more than once counts as often. */
    list(list: Int32Array, set: Bitset): Sums {
      const byKind = begin();
      for (const i of list) {
        if (!has(set, i)) continue;
        const at = 3 * kindOf[i]!;
        byKind[at]! += 1;
        if (!weights) continue;
        byKind[at + 1]! += weights[i]!;
        byKind[at + 2]! += weights[i]! * weights[i]!;
      }
      return end(byKind);
    },
  };
}

/** Which kind each respondent is of, and in which columns each kind stands. */
function kindsOf(columns: CrosstabInput['columns'], size: number) {
  const kindOf = new Int32Array(size);
  const columnsOf: number[][] = [[]];
  columns.forEach(({ members }, c) => {
    // what those of a kind become who stand in this column too; 0 for none yet
    const become = new Int32Array(columnsOf.length);
    // everybody is of one kind still: a column with nearly all of them is filled in whole words
    const isFirst = columnsOf.length === 1;
    for (let w = 0; w < members.length; w++)
      if (isFirst && members[w] === 0xffffffff) {
        if (become[0] === 0) become[0] = columnsOf.push([c]) - 1;
        kindOf.fill(become[0]!, w * 32, w * 32 + 32);
      } else
        for (let word = members[w]! | 0; word !== 0; word &= word - 1) {
          const i = w * 32 + 31 - Math.clz32(word & -word);
          const before = kindOf[i]!;
          if (become[before] === 0) become[before] = columnsOf.push([...columnsOf[before]!, c]) - 1;
          kindOf[i] = become[before]!;
        }
  });
  // half as much to go through for every row, where there are no more kinds than that
  const small = columnsOf.length <= 0x10000 ? Uint16Array.from(kindOf) : kindOf;
  return { kindOf: small, columnsOf };
}

// the loops that a large table spends its time in: written out, without a call for each person, and on words with a
// sign, which the machine has an integer for

function addPeople(
  set: Bitset,
  within: Bitset,
  kindOf: Uint16Array | Int32Array,
  byKind: Float64Array,
): void {
  for (let w = 0; w < set.length; w++)
    for (let word = set[w]! & within[w]!; word !== 0; word &= word - 1)
      byKind[3 * kindOf[w * 32 + 31 - Math.clz32(word & -word)]!]! += 1;
}

function addWeighted(
  set: Bitset,
  within: Bitset,
  kindOf: Uint16Array | Int32Array,
  weights: Float64Array,
  byKind: Float64Array,
): void {
  for (let w = 0; w < set.length; w++)
    for (let word = set[w]! & within[w]!; word !== 0; word &= word - 1) {
      const i = w * 32 + 31 - Math.clz32(word & -word);
      const at = 3 * kindOf[i]!;
      const weight = weights[i]!;
      byKind[at]! += 1;
      byKind[at + 1]! += weight;
      byKind[at + 2]! += weight * weight;
    }
}

type ColumnCounter = ReturnType<typeof columnCounter>;

/** Whose mentions of a row count: for most rows these are the very same people. */
function decidedAmong(answered: Bitset): (row: Pick<CrosstabRow, 'decided'>) => Bitset {
  const known = new Map<Bitset, Bitset>();
  return ({ decided }) => {
    let both = known.get(decided);
    if (!both) known.set(decided, (both = intersect(decided, answered)));
    return both;
  };
}

/** The base of every column; rows that are decided for the same people share theirs. */
function baseCounter(input: CrosstabInput, counter: ColumnCounter): (decided: Bitset) => Base[] {
  const { answered, asked, base, columns } = input;
  if (base === 'mentions') {
    const all = allMentions(input, counter);
    return () => all;
  }
  const known = new Map<Bitset, Base[]>();
  return (decided) => {
    const out = { settled: decided, answered, asked }[base];
    let bases = known.get(out);
    if (!bases) {
      const { people, weighted, squares } = counter.people(
        out,
        base === 'settled' ? answered : out,
      );
      bases = columns.map((_, c) => ({
        people: people[c]!,
        weighted: weighted[c]!,
        squares: squares[c]!,
        effective: effectiveBase(weighted[c]!, squares[c]!),
      }));
      known.set(out, bases);
    }
    return bases;
  };
}

/** Everything that is mentioned in each column, of whatever code. */
function allMentions(input: CrosstabInput, counter: ColumnCounter): Base[] {
  const decidedIn = decidedAmong(input.answered);
  const parts = (input.codes ?? input.rows).flatMap((row) => {
    const decided = decidedIn(row);
    return [counter.people(row.mentioned, decided), counter.list(row.again, decided)];
  });
  return input.columns.map((_, c) => {
    const sum = (of: keyof Sums) => parts.reduce((all, part) => all + part[of][c]!, 0);
    const [weighted, squares] = [sum('weighted'), sum('squares')];
    return {
      people: sum('people'),
      weighted,
      squares,
      effective: effectiveBase(weighted, squares),
    };
  });
}

/**
 * A code's row from its mentions.
 *
 * @param lists the respondent of each mention, in one list or several
 * @param size how many respondents there are
 */
export function rowOfMentions(
  key: string,
  lists: readonly Int32Array[],
  decided: Bitset,
  size: number,
): CrosstabRow {
  const mentioned = emptyBitset(size);
  const again: number[] = [];
  for (const mentions of lists)
    for (const i of mentions)
      if (has(mentioned, i)) again.push(i);
      else addTo(mentioned, i);
  return { key, mentioned, decided, again: Int32Array.from(again) };
}

/**
 * A theme's row: people who mention any of its codes, counted once; mentions are the sum. A respondent counts for the
 * theme when they count for all of its codes, and is undecided when they mention none and some code is undecided.
 *
 * @throws RangeError when there are no codes
 */
export function rollUp(key: string, codes: readonly CrosstabRow[]): CrosstabRow {
  const [first, ...others] = codes;
  if (!first) throw new RangeError(`Theme ${key} has no codes to roll up.`);
  const mentioned = together(codes);
  return {
    key,
    ...mentioned,
    undecided: stillUndecided(codes, mentioned),
    // most codes are decided for the very same people
    decided: others.reduce(
      (all, code) => (code.decided === all ? all : intersect(all, code.decided)),
      first.decided,
    ),
  };
}

/** Those undecided in some row who mention it in none. */
function stillUndecided(
  rows: readonly Pick<CrosstabRow, 'undecided'>[],
  { mentioned }: Mentioned,
): Bitset | null {
  const sets = rows.flatMap(({ undecided }) => undecided ?? []);
  if (sets.length === 0) return null;
  const left = subtract(sets.reduce(unite), mentioned);
  return isEmpty(left) ? null : left;
}

/**
 * A code's row across several questions: people who mention it in any of them. Somebody counts when every answer of
 * theirs does.
 *
 * @param rows the code's row in each question, and who answered that
 */
export function acrossQuestions(
  key: string,
  rows: readonly { row: CrosstabRow; answered: Bitset }[],
): CrosstabRow {
  const [first] = rows;
  if (!first) throw new RangeError(`Code ${key} has no question to be counted in.`);
  const none = emptyBitset(32 * first.answered.length);
  const answeredAny = rows.reduce((all, { answered }) => unite(all, answered), none);
  // a mention counts where the answer that it is in is one
  const counted = rows.map(({ row, answered }) => ({
    mentioned: intersect(row.mentioned, answered),
    again: row.again.filter((i) => has(answered, i)),
  }));
  const undecided = rows.reduce(
    (all, { row, answered }) => unite(all, subtract(answered, row.decided)),
    none,
  );
  const mentioned = together(counted);
  return {
    key,
    ...mentioned,
    decided: subtract(answeredAny, undecided),
    undecided: stillUndecided(
      rows.map(({ row }) => row),
      mentioned,
    ),
  };
}

type Mentioned = Pick<CrosstabRow, 'mentioned' | 'again'>;

/** Who mentions any of several things, and who does so again: one of them more than once, or one after another. */
function together(rows: readonly Mentioned[]): Mentioned {
  const mentioned = new Uint32Array(rows[0]!.mentioned.length);
  const again: number[] = [];
  for (const row of rows) {
    for (const i of row.again) again.push(i);
    forEachInBoth(mentioned, row.mentioned, (i) => again.push(i));
    for (let w = 0; w < mentioned.length; w++) mentioned[w]! |= row.mentioned[w]!;
  }
  return { mentioned, again: Int32Array.from(again) };
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
