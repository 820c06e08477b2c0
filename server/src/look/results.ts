import { createHash } from 'node:crypto';
import { byDatabase, VersionedCache } from '../versionedCache.js';
import type { LookMaterial } from './material.js';

/** Room for the lines of some questions of 100,000 answers, and hundreds of other results. */
const MOST_BYTES = 2 ** 26;
/** Of most results, roughly: hundreds of words and figures. */
const BYTES_EACH = 2 ** 16;

/** What was computed of answers: kept until they change. */
class LookResults {
  readonly #cache = new VersionedCache<string, Promise<unknown>>(MOST_BYTES);

  /**
   * @param name of what is computed
   * @param asked all that it depends on besides the answers
   * @param bytesOf what a result takes, of those that grow with the answers
   */
  get<Result>(
    name: string,
    { version, ids }: LookMaterial,
    asked: object,
    compute: () => Promise<Result>,
    bytesOf: (result: Result) => number = () => BYTES_EACH,
  ): Promise<Result> {
    const key = digestOf([name, ids[0] ?? 0, asked]);
    return this.#cache.get(key, version, () => {
      const value = compute();
      return { value, bytes: value.then(bytesOf) };
      // a result of one name and question is what this name computes
    }) as Promise<Result>;
  }
}

/** Equal only for what is equal. */
export function digestOf(asked: unknown): string {
  const hash = createHash('sha256');
  const parts = JSON.stringify(asked, (_, value: unknown) => {
    if (!ArrayBuffer.isView(value)) return value;
    hash.update(new Uint8Array(value.buffer, value.byteOffset, value.byteLength));
    return value.byteLength;
  });
  return hash.update(parts).digest('base64');
}

/** What was computed last. */
export const resultsOf = byDatabase(() => new LookResults());
