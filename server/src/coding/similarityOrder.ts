import { createHash } from 'node:crypto';
import type { orderTextsBySimilarity } from '@yellow-thread/core/text';
import type { Threads } from '../jobs/index.js';
import { keepRecent } from '../keepRecent.js';

type SimilarityOrder = ReturnType<typeof orderTextsBySimilarity>;
/** How the texts that were asked for last are laid out, by their digest: for 100,000 it takes seconds. */
const cache = new Map<string, Promise<SimilarityOrder>>();
const MOST_KNOWN = 4;

/** Texts laid out by similarity, as `layOutBySimilarity` does. */
export function similarityOrder(threads: Threads, texts: string[]): Promise<SimilarityOrder> {
  const digest = createHash('sha256').update(JSON.stringify(texts)).digest('base64');
  const found = cache.get(digest) ?? threads.run('layOutBySimilarity', { texts });
  keepRecent(cache, digest, found, MOST_KNOWN);
  found.catch(() => cache.delete(digest));
  return found;
}
