import { duplicateKey } from './normalise.js';

const RUN = 5;
const ALIKE = 0.8;
const BANDS = 24;
const ROWS = 4;
/** Texts that share a band are compared with the first so many of it: more are of one group, or of none. */
const MOST_COMPARED = 30;
/** Fewer equal smallest numbers than this share, and two texts are hardly alike: they are not compared further. */
const HARDLY = 0.6;

/**
 * Groups of texts that are nearly the same: Jaccard ≥ 0.8 on their runs of 5 characters (of the text folded for
 * matching; a shorter one is a run by itself). Candidates are found by MinHash in 24 bands of 4 (Broder 1997;
 * Leskovec, Rajaraman & Ullman 2014, § 3.4) and then compared exactly, so that no pair is wrong; a pair of just 0.8
 * is missed once in 1 / (1 − 0.8⁴)²⁴, some 300,000.
 *
 * @returns for each text the index of the first text of its group: its own where it is alone
 */
export function nearDuplicates(texts: readonly string[]): Int32Array {
  const runs = texts.map(runsOf);
  const first = Int32Array.from(texts.keys());
  const rootOf = (i: number): number => {
    let root = i;
    while (first[root] !== root) root = first[root]!;
    first[i] = root;
    return root;
  };
  const seeds = Uint32Array.from({ length: BANDS * ROWS }, (_, h) => Math.imul(h + 1, 0x9e3779b1));
  const buckets = Array.from({ length: BANDS }, () => new Map<string, number[]>());
  const signatures = runs.map((hashes) => minHash(hashes, seeds));
  for (const [i, hashes] of runs.entries()) {
    const signature = signatures[i]!;
    const compared = new Set<number>();
    for (let band = 0; band < BANDS; band++) {
      const key = signature.slice(band * ROWS, (band + 1) * ROWS).join(' ');
      const bucket = buckets[band]!.get(key);
      if (!bucket) {
        buckets[band]!.set(key, [i]);
        continue;
      }
      for (const other of bucket) {
        if (compared.has(other)) continue;
        compared.add(other);
        if (agreement(signature, signatures[other]!) < HARDLY) continue;
        if (jaccard(hashes, runs[other]!) < ALIKE) continue;
        const [x, y] = [rootOf(i), rootOf(other)];
        first[Math.max(x, y)] = Math.min(x, y);
      }
      if (bucket.length < MOST_COMPARED) bucket.push(i);
    }
  }
  for (let i = 0; i < texts.length; i++) first[i] = rootOf(i);
  return first;
}

/** The runs of a text, as numbers in ascending order, each once. */
function runsOf(text: string): Uint32Array {
  const key = duplicateKey(text);
  const found = new Set<number>();
  for (let from = 0; from === 0 || from + RUN <= key.length; from++) {
    let hash = 0x811c9dc5;
    for (let i = from; i < Math.min(key.length, from + RUN); i++)
      hash = Math.imul(hash ^ key.charCodeAt(i), 0x01000193);
    found.add(hash >>> 0);
  }
  return Uint32Array.from(found).sort();
}

/** The smallest of each of several scatterings of the numbers. */
function minHash(numbers: Uint32Array, seeds: Uint32Array): Uint32Array {
  return seeds.map((seed) => {
    let least = 0xffffffff;
    for (const number of numbers) {
      let mixed = Math.imul(number ^ seed, 0x85ebca6b);
      mixed = Math.imul(mixed ^ (mixed >>> 13), 0xc2b2ae35);
      mixed = (mixed ^ (mixed >>> 16)) >>> 0;
      if (mixed < least) least = mixed;
    }
    return least;
  });
}

/** The share of places in which two signatures are equal: about their Jaccard. */
function agreement(x: Uint32Array, y: Uint32Array): number {
  let equal = 0;
  for (let h = 0; h < x.length; h++) if (x[h] === y[h]) equal += 1;
  return equal / x.length;
}

/** How much two ascending lists have in common. */
function jaccard(x: Uint32Array, y: Uint32Array): number {
  let common = 0;
  let i = 0;
  let j = 0;
  while (i < x.length && j < y.length) {
    const [one, other] = [x[i]!, y[j]!];
    if (one === other) common += 1;
    if (one <= other) i += 1;
    if (other <= one) j += 1;
  }
  return common / (x.length + y.length - common);
}
