import { duplicateKey } from '../text/index.js';

const RUN = 5;
const ALIKE = 0.8;
/** Texts with a run in common that a text is compared with: if there are more, they are of one group, or of none. */
const MOST_COMPARED = 30;
/** Words of 32 bits of a text's bitmap. */
const MAP = 8;

/**
 * Groups of texts that are nearly the same: Jaccard ≥ 0.8 on their runs of 5 characters (of the text folded for
 * matching; a shorter one is a run by itself). Two texts that are so alike share one of their rarest runs: with n of
 * them, one of the n − ⌈0.8 n⌉ + 1 rarest. Those that do are compared exactly, so that no pair is wrong; one can be
 * missed only where each of these runs stands in more than 30 texts.
 *
 * @returns for each text the index of the first text of its group: its own where it is alone
 * @see Chaudhuri, Ganti & Kaushik (2006) A primitive operator for similarity joins in data cleaning; Bayardo, Ma &
 *   Srikant (2007) Scaling up all pairs similarity search; Xiao, Wang, Lin & Yu (2008) Efficient similarity joins for
 *   near duplicate detection; Sandes, Teodoro & Melo (2020) Bitmap filter: speeding up exact set similarity joins with
 *   bitwise operations
 */
export function nearDuplicates(texts: readonly string[]): Int32Array {
  const runs = byRarity(texts.map(runsOf));
  const first = Int32Array.from(texts.keys());
  const rootOf = (i: number): number => {
    let root = i;
    while (first[root] !== root) root = first[root]!;
    first[i] = root;
    return root;
  };
  // the shortest first: what a text is compared with is no longer than itself
  const order = Uint32Array.from(texts.keys()).sort(
    (x, y) => runs[x]!.length - runs[y]!.length || x - y,
  );
  const maps = bitmaps(runs);
  const having = new Map<number, number[]>();
  const comparedWith = new Int32Array(texts.length).fill(-1);
  for (const i of order) {
    const its = runs[i]!;
    const rarest = its.length - Math.ceil(ALIKE * its.length) + 1;
    for (let r = 0; r < rarest; r++) {
      const others = having.get(its[r]!);
      if (!others) {
        having.set(its[r]!, [i]);
        continue;
      }
      for (let o = others.length - 1; o >= Math.max(0, others.length - MOST_COMPARED); o--) {
        const other = others[o]!;
        const theirs = runs[other]!;
        // all before it are shorter still
        if (theirs.length < ALIKE * its.length) break;
        if (comparedWith[other] === i) continue;
        comparedWith[other] = i;
        // at least this many runs are in one of the two only
        const apart = its.length + theirs.length - 2 * enoughOf(its, theirs);
        if (bitsApart(maps, i, other) > apart) continue;
        const [x, y] = [rootOf(i), rootOf(other)];
        if (x !== y && areAlike(its, theirs)) first[Math.max(x, y)] = Math.min(x, y);
      }
      others.push(i);
    }
  }
  for (let i = 0; i < texts.length; i++) first[i] = rootOf(i);
  return first;
}

/** The runs of a text, as numbers, each once. */
function runsOf(text: string): Uint32Array {
  const key = duplicateKey(text);
  const found = new Set<number>();
  for (let from = 0; from === 0 || from + RUN <= key.length; from++) {
    let hash = 0x811c9dc5;
    for (let i = from; i < Math.min(key.length, from + RUN); i++)
      hash = Math.imul(hash ^ key.charCodeAt(i), 0x01000193);
    found.add(hash >>> 0);
  }
  return Uint32Array.from(found);
}

/** The same with each run's place among all by rarity, the rarest first. */
function byRarity(runs: readonly Uint32Array[]): Uint32Array[] {
  const counts = new Map<number, number>();
  for (const its of runs) for (const run of its) counts.set(run, (counts.get(run) ?? 0) + 1);
  const places = new Map(
    [...counts].sort(([x, n], [y, m]) => n - m || x - y).map(([run], place) => [run, place]),
  );
  return runs.map((its) => its.map((run) => places.get(run)!).sort());
}

/** Bit run mod 256 of a text is set when it has such a run: what two texts have apart, their bitmaps have at the most. */
function bitmaps(runs: readonly Uint32Array[]): Uint32Array {
  const maps = new Uint32Array(MAP * runs.length);
  for (const [i, its] of runs.entries())
    for (const run of its) maps[MAP * i + ((run >>> 5) % MAP)]! |= 1 << (run & 31);
  return maps;
}

function bitsApart(maps: Uint32Array, i: number, j: number): number {
  let count = 0;
  for (let w = 0; w < MAP; w++) {
    let word = maps[MAP * i + w]! ^ maps[MAP * j + w]!;
    word -= (word >>> 1) & 0x55555555;
    word = (word & 0x33333333) + ((word >>> 2) & 0x33333333);
    count += Math.imul((word + (word >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
  }
  return count;
}

/** How much two lists must have in common: Jaccard ≥ a means that |x ∩ y| ≥ a / (1 + a) · (|x| + |y|). */
const enoughOf = (x: Uint32Array, y: Uint32Array): number =>
  Math.ceil((ALIKE / (1 + ALIKE)) * (x.length + y.length) - 1e-9);

/** Whether two ascending lists have enough in common; given up as soon as they cannot any more. */
function areAlike(x: Uint32Array, y: Uint32Array): boolean {
  const enough = enoughOf(x, y);
  let common = 0;
  let i = 0;
  let j = 0;
  while (common + Math.min(x.length - i, y.length - j) >= enough) {
    if (i === x.length || j === y.length) return true;
    const [one, other] = [x[i]!, y[j]!];
    if (one === other) common += 1;
    if (one <= other) i += 1;
    if (other <= one) j += 1;
  }
  return false;
}
