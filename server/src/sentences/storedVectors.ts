import { createHash } from 'node:crypto';
import type { SentenceVectors } from '@yellow-thread/core/sentences';
import { unpackVector } from '@yellow-thread/core/sentences';

const HASH_BYTES = 16;

/** A text as it is read for meaning. */
export const readable = (text: string): string => text.replace(/\s+/gu, ' ').trim();

/** What a text's vector is kept under. */
export const hashOf = (text: string): Buffer =>
  createHash('sha256').update(readable(text)).digest().subarray(0, HASH_BYTES);

/** Vectors as they go to threads: hashes and packed vectors, one after the other, in memory that is shared. */
export interface SharedVectors {
  /** Numbers in a vector. */
  size: number;
  count: number;
  hashes: Uint8Array;
  packed: Uint8Array;
}

/** Gathers vectors as they go to threads. */
export class SharedVectorsBuilder {
  private readonly most: number;
  private readonly hashes: Uint8Array;
  private packed: Uint8Array | null = null;
  private count = 0;

  /** @param most vectors that there may be */
  constructor(most: number) {
    this.most = most;
    this.hashes = new Uint8Array(new SharedArrayBuffer(most * HASH_BYTES));
  }

  add(vectors: readonly { textHash: Uint8Array; vector: Uint8Array }[]): void {
    for (const { textHash, vector } of vectors) {
      this.packed ??= new Uint8Array(new SharedArrayBuffer(this.most * vector.length));
      this.hashes.set(textHash, this.count * HASH_BYTES);
      this.packed.set(vector, this.count * vector.length);
      this.count += 1;
    }
  }

  /** Null where there is none. */
  vectors(): SharedVectors | null {
    const { packed, count, most, hashes } = this;
    if (!packed) return null;
    const bytes = packed.length / most;
    return {
      size: unpackVector(packed.subarray(0, bytes)).length,
      count,
      hashes: hashes.subarray(0, count * HASH_BYTES),
      packed: packed.subarray(0, count * bytes),
    };
  }
}

/** What the vector at a place is kept under. */
export const hashAt = ({ hashes }: SharedVectors, place: number): string =>
  keyOf(hashes.subarray(place * HASH_BYTES, (place + 1) * HASH_BYTES));

/** Looks vectors up by their texts. */
export function storedVectors(vectors: SharedVectors): SentenceVectors {
  const { size, count, packed } = vectors;
  const bytes = packed.length / count;
  const placeOf = new Map<string, number>();
  for (let i = 0; i < count; i++) placeOf.set(hashAt(vectors, i), i);
  /** A text is asked for several times, and hashing it takes longer than all else. */
  const placeOfText = new Map<string, number>();
  return {
    size,
    of(text) {
      let place = placeOfText.get(text);
      if (place === undefined) {
        place = placeOf.get(keyOf(hashOf(text))) ?? -1;
        placeOfText.set(text, place);
      }
      if (place === -1) return null;
      return unpackVector(packed.subarray(place * bytes, (place + 1) * bytes));
    },
  };
}

/** A hash as the key of a map. */
export const keyOf = (hash: Uint8Array): string =>
  Buffer.from(hash.buffer, hash.byteOffset, hash.byteLength).toString('latin1');
