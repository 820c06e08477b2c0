import {
  countOfBoth,
  emptyBitset,
  forEachIn,
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
  const counter = columnCounter(input);
  const basesOf = baseCounter(input, counter);
  const isOfMentions = input.base === 'mentions';
  return input.rows.map((row) => {
    const counted = countedIn(row, input);
    const first = counter.people(counted);
    const again = counter.list(repeatedMentions(row, counted));
    const bases = basesOf(row.decided);
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
 * Counts people by column, each person looked at once however many columns there are: columns that have nobody in
 * common share a layer, which says of every respondent which of its columns they stand in.
 */
function columnCounter({
  columns,
  asked,
  weights,
}: Pick<ClothInput, 'columns' | 'asked' | 'weights'>) {
  const layers: { taken: Bitset; of: Int16Array }[] = [];
  columns.forEach(({ members }, c) => {
    let layer = layers.find(({ taken }) => countOfBoth(taken, members) === 0);
    if (!layer) {
      layer = {
        taken: emptyBitset(32 * asked.length),
        of: new Int16Array(32 * asked.length).fill(-1),
      };
      layers.push(layer);
    }
    const { of } = layer;
    forEachIn(members, (i) => {
      of[i] = c;
    });
    layer.taken = unite(layer.taken, members);
  });
  const nothing = (): Sums => ({
    people: new Float64Array(columns.length),
    weighted: new Float64Array(columns.length),
    squares: new Float64Array(columns.length),
  });
  return {
    people(set: Bitset): Sums {
      const sums = nothing();
      for (const { of } of layers)
        if (weights) addWeighted(set, of, weights, sums);
        else addPeople(set, of, sums.people);
      return weights ? sums : { ...sums, weighted: sums.people, squares: sums.people };
    },
    /** People who may stand in the list more than once, and count as often. */
    list(list: Int32Array): Sums {
      const sums = nothing();
      for (const { of } of layers)
        for (const i of list) {
          const c = of[i]!;
          if (c < 0) continue;
          sums.people[c]! += 1;
          sums.weighted[c]! += weights ? weights[i]! : 1;
        }
      return sums;
    },
  };
}

// the two loops that a large table spends its time in: written out, without a call for each person, and on words with a
// sign, which the machine has an integer for

function addPeople(set: Bitset, of: Int16Array, people: Float64Array): void {
  for (let w = 0; w < set.length; w++)
    for (let word = set[w]! | 0; word !== 0; word &= word - 1) {
      const c = of[w * 32 + 31 - Math.clz32(word & -word)]!;
      if (c >= 0) people[c]! += 1;
    }
}

function addWeighted(
  set: Bitset,
  of: Int16Array,
  weights: Float64Array,
  { people, weighted, squares }: Sums,
): void {
  for (let w = 0; w < set.length; w++)
    for (let word = set[w]! | 0; word !== 0; word &= word - 1) {
      const i = w * 32 + 31 - Math.clz32(word & -word);
      const c = of[i]!;
      if (c < 0) continue;
      const weight = weights[i]!;
      people[c]! += 1;
      weighted[c]! += weight;
      squares[c]! += weight * weight;
    }
}
type ColumnCounter = ReturnType<typeof columnCounter>;

/** Whose mentions of a row count. */
const countedIn = ({ mentioned, decided }: ClothRow, { answered }: ClothInput): Bitset =>
  intersect(intersect(mentioned, decided), answered);

/** The base of every column; rows that are decided for the same people share theirs. */
function baseCounter(input: ClothInput, counter: ColumnCounter): (decided: Bitset) => Base[] {
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
        base === 'settled' ? intersect(decided, answered) : out,
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
function allMentions(input: ClothInput, counter: ColumnCounter): Base[] {
  const parts = (input.codes ?? input.rows).flatMap((row) => {
    const counted = countedIn(row, input);
    return [counter.people(counted), counter.list(repeatedMentions(row, counted))];
  });
  return input.columns.map((_, c) => {
    const sum = (of: 'people' | 'weighted') => parts.reduce((all, part) => all + part[of][c]!, 0);
    const weighted = sum('weighted');
    return { people: sum('people'), weighted, squares: weighted, effective: weighted };
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
  // whoever is counted and has not come up yet
  const left = counted.slice();
  const repeats: number[] = [];
  for (const i of mentions) {
    const word = i >>> 5;
    const bit = 1 << (i & 31);
    if ((left[word]! & bit) !== 0) left[word]! &= ~bit;
    else if ((counted[word]! & bit) !== 0) repeats.push(i);
  }
  return Int32Array.from(repeats);
}
