import { createHash } from 'node:crypto';
import type { SentenceVectors } from '@yellow-thread/core/learning';
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

/** @param vectors of which those without a vector are left out */
export function shareVectors(
  vectors: readonly { textHash: Uint8Array; vector: Uint8Array | null }[],
): SharedVectors | null {
  const kept = vectors.filter(({ vector }) => vector !== null);
  const bytes = kept[0]?.vector?.length;
  if (bytes === undefined) return null;
  const hashes = new Uint8Array(new SharedArrayBuffer(kept.length * HASH_BYTES));
  const packed = new Uint8Array(new SharedArrayBuffer(kept.length * bytes));
  kept.forEach(({ textHash, vector }, i) => {
    hashes.set(textHash, i * HASH_BYTES);
    packed.set(vector!, i * bytes);
  });
  return { size: unpackVector(kept[0]!.vector!).length, count: kept.length, hashes, packed };
}

/** Looks vectors up by their texts. */
export function storedVectors({ size, count, hashes, packed }: SharedVectors): SentenceVectors {
  const bytes = packed.length / count;
  const placeOf = new Map<string, number>();
  for (let i = 0; i < count; i++)
    placeOf.set(keyOf(hashes.subarray(i * HASH_BYTES, (i + 1) * HASH_BYTES)), i);
  return {
    size,
    of(text) {
      const place = placeOf.get(keyOf(hashOf(text)));
      if (place === undefined) return null;
      return unpackVector(packed.subarray(place * bytes, (place + 1) * bytes));
    },
  };
}

const keyOf = (hash: Uint8Array): string =>
  Buffer.from(hash.buffer, hash.byteOffset, hash.byteLength).toString('latin1');
