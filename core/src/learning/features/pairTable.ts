/** A map from pairs of non-negative integers to integers. */
export interface PairTable {
  /** −1 where there is none. */
  get: (first: number, second: number) => number;
  /** Must not be there yet. */
  add: (first: number, second: number, value: number) => void;
  forEach: (tell: (first: number, second: number, value: number) => void) => void;
}

const FIRST_SIZE = 1 << 10;

/**
 * A hash table with open addressing: a Map of Maps would have an object for each of hundreds of thousands of pairs.
 *
 * @see Knuth (1998) The Art of Computer Programming 3, § 6.4
 */
export function pairTable(): PairTable {
  let size = FIRST_SIZE;
  let used = 0;
  // first, second, value
  let entries = new Int32Array(3 * size).fill(-1);
  /** Where a pair stands, or would. */
  const placeOf = (first: number, second: number): number => {
    const mixed = Math.imul(first, 0x9e3779b1) ^ Math.imul(second, 0x85ebca6b);
    let slot = (mixed ^ (mixed >>> 15)) & (size - 1);
    for (;;) {
      const at = 3 * slot;
      if (entries[at] === -1 || (entries[at] === first && entries[at + 1] === second)) return at;
      slot = (slot + 1) & (size - 1);
    }
  };
  const put = (first: number, second: number, value: number) => {
    const at = placeOf(first, second);
    entries[at] = first;
    entries[at + 1] = second;
    entries[at + 2] = value;
  };
  return {
    get: (first, second) => entries[placeOf(first, second) + 2]!,
    add(first, second, value) {
      if (2 * ++used > size) {
        const before = entries;
        size *= 2;
        entries = new Int32Array(3 * size).fill(-1);
        for (let at = 0; at < before.length; at += 3)
          if (before[at] !== -1) put(before[at]!, before[at + 1]!, before[at + 2]!);
      }
      put(first, second, value);
    },
    forEach(tell) {
      for (let at = 0; at < entries.length; at += 3)
        if (entries[at] !== -1) tell(entries[at]!, entries[at + 1]!, entries[at + 2]!);
    },
  };
}
