import { createHash } from 'node:crypto';
import type { orderTextsBySimilarity } from '@yellow-thread/core/text';
import type { Threads } from '../jobs/index.js';
import { VersionedCache } from '../versionedCache.js';

type SimilarityOrder = ReturnType<typeof orderTextsBySimilarity>;
/** The order of the texts that were asked for last, by their digest: for 100,000 it takes seconds. */
const MOST_BYTES = 2 ** 24;
/** Of a text: its place, and what it belongs to. */
const BYTES_EACH = 16;
const cache = new VersionedCache<string, Promise<SimilarityOrder>>(MOST_BYTES);

/** Texts ordered by similarity, as `orderTextsBySimilarity` does. */
export function similarityOrder(threads: Threads, texts: string[]): Promise<SimilarityOrder> {
  const digest = createHash('sha256').update(JSON.stringify(texts)).digest('base64');
  return cache.get(digest, '', () => {
    const value = threads.run('orderTextsBySimilarity', { texts });
    return { value, bytes: value.then(() => BYTES_EACH * texts.length) };
  });
}
