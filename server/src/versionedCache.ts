import { LRUCache } from 'lru-cache';

/** What was read of something, and how many bytes it takes once that is known. */
export interface Reading<Value> {
  value: Value;
  bytes: Promise<number>;
}

interface Entry<Value> {
  version: string;
  reading: Reading<Value>;
}

/**
 * Keeps what was read per key for as long as its version is the same. Beyond a number of bytes in all, what was asked
 * for longest ago is dropped. What could not be read is not kept.
 */
export class VersionedCache<Key extends string | number, Value> {
  readonly #entries: LRUCache<Key, Entry<Value>>;

  constructor(mostBytes: number) {
    this.#entries = new LRUCache({ maxSize: mostBytes });
  }

  /**
   * @param read what is read where nothing of that version is kept; gets what is kept of another
   */
  get(key: Key, version: string, read: (before: Value | null) => Reading<Value>): Value {
    const known = this.#entries.get(key);
    if (known?.version === version) return known.reading.value;
    const reading = read(known?.reading.value ?? null);
    // an entry of its own each time: only so is its size taken
    const keep = (size: number) => this.#entries.set(key, { version, reading }, { size });
    keep(1);
    // by then something newer may be kept in its place, which stays
    const isCurrent = () => this.#entries.peek(key)?.reading === reading;
    reading.bytes.then(
      (size) => {
        if (isCurrent()) keep(Math.max(1, size));
      },
      () => {
        if (isCurrent()) this.#entries.delete(key);
      },
    );
    return reading.value;
  }
}

/** What is kept by database: a test, or a server beside another, has its own. */
export function byDatabase<Kept extends object>(
  make: () => Kept,
): (em: { config: object }) => Kept {
  const all = new WeakMap<object, Kept>();
  return ({ config }) => {
    const kept = all.get(config) ?? make();
    all.set(config, kept);
    return kept;
  };
}
