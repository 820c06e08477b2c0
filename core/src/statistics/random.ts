const mask64 = (1n << 64n) - 1n;

function* splitmix64(seed: bigint): Generator<bigint, never> {
  let state = seed & mask64;
  for (;;) {
    state = (state + 0x9e3779b97f4a7c15n) & mask64;
    let z = state;
    z = ((z ^ (z >> 30n)) * 0xbf58476d1ce4e5b9n) & mask64;
    z = ((z ^ (z >> 27n)) * 0x94d049bb133111ebn) & mask64;
    yield z ^ (z >> 31n);
  }
}

const rotateLeft = (x: number, k: number) => (x << k) | (x >>> (32 - k));

/**
 * A seeded source of random numbers, the same on every machine: xoshiro128**, its state filled from
 * the seed by splitmix64.
 *
 * @returns a function that gives a whole number from 0 to 2³² − 1 at each call
 * @see Blackman & Vigna (2021) Scrambled linear pseudorandom number generators
 */
export function randomSource(seed: number): () => number {
  const words = splitmix64(BigInt(seed));
  const [first, second] = [words.next().value, words.next().value];
  const low = (x: bigint) => Number(x & 0xffffffffn) | 0;
  let [s0, s1, s2, s3] = [low(first), low(first >> 32n), low(second), low(second >> 32n)];
  return () => {
    const result = Math.imul(rotateLeft(Math.imul(s1, 5), 7), 9) >>> 0;
    const t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = rotateLeft(s3, 11);
    return result;
  };
}

/** Fisher and Yates' shuffle in place, from the end. Returns the same array. */
export function shuffle<T extends { length: number; [i: number]: unknown }>(
  values: T,
  next: () => number,
): T {
  for (let i = values.length - 1; i > 0; i--) {
    const j = Math.floor((next() / 2 ** 32) * (i + 1));
    [values[i], values[j]] = [values[j], values[i]];
  }
  return values;
}

/**
 * A number as if drawn at random, always the same for an id and a seed: the order of answers by it does not change when
 * others come or go.
 *
 * @param id and seed: whole numbers of 32 bits
 * @returns a whole number from 0 to 2³² − 1
 * @see Appleby (2011) MurmurHash3: its finaliser, of the id and of the seed that was mixed by the same
 */
export const drawnFor = (id: number, seed: number): number => mixed(id ^ mixed(seed));

function mixed(value: number): number {
  let hash = value;
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
