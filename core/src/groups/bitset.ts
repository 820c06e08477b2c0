/** A set of respondents: bit i is set when respondent i belongs to it. */
export type Bitset = Uint32Array;

/** An empty set for `size` respondents. */
export const emptyBitset = (size: number): Bitset => new Uint32Array(Math.ceil(size / 32));

/** The set of all `size` respondents. */
export function fullBitset(size: number): Bitset {
  const set = emptyBitset(size).fill(0xffffffff);
  if (size % 32 !== 0) set[set.length - 1] = 0xffffffff >>> (32 - (size % 32));
  return set;
}

export function addTo(set: Bitset, i: number): void {
  set[i >>> 5]! |= 1 << (i & 31);
}

export const has = (set: Bitset, i: number): boolean => ((set[i >>> 5]! >>> (i & 31)) & 1) === 1;

export function intersect(x: Bitset, y: Bitset): Bitset {
  const both = new Uint32Array(x.length);
  for (let w = 0; w < x.length; w++) both[w] = x[w]! & y[w]!;
  return both;
}
export function unite(x: Bitset, y: Bitset): Bitset {
  const either = new Uint32Array(x.length);
  for (let w = 0; w < x.length; w++) either[w] = x[w]! | y[w]!;
  return either;
}

/** Those of the first set who are not in the second. */
export const subtract = (x: Bitset, y: Bitset): Bitset => x.map((word, i) => word & ~y[i]!);

export const isEmpty = (set: Bitset): boolean => set.every((word) => word === 0);

/** How many belong to the set. */
export const countOf = (set: Bitset): number => countOfBoth(set, set);

/** How many belong to both sets, without making the set of them. */
export function countOfBoth(x: Bitset, y: Bitset): number {
  let count = 0;
  for (let w = 0; w < x.length; w++) {
    let word = x[w]! & y[w]!;
    if (word === 0) continue;
    word -= (word >>> 1) & 0x55555555;
    word = (word & 0x33333333) + ((word >>> 2) & 0x33333333);
    count += Math.imul((word + (word >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
  }
  return count;
}

/** Calls `visit` with each member, in ascending order. */
export const forEachIn = (set: Bitset, visit: (i: number) => void): void =>
  forEachInBoth(set, set, visit);

/** Calls `visit` with each member of both sets, in ascending order. */
export function forEachInBoth(x: Bitset, y: Bitset, visit: (i: number) => void): void {
  for (let w = 0; w < x.length; w++) {
    // the and of two words has a sign, for which the machine has an integer
    let word = x[w]! & y[w]!;
    while (word !== 0) {
      const lowest = word & -word;
      visit(w * 32 + (31 - Math.clz32(lowest)));
      word ^= lowest;
    }
  }
}
