import { createHash } from 'node:crypto';
import type { layOutBySimilarity } from '@yellow-thread/core/text';
import type { Threads } from '../jobs/index.js';
import { keepRecent } from '../keepRecent.js';

type LaidOut = ReturnType<typeof layOutBySimilarity>;
/** How the texts that were asked for last are laid out, by their digest: for 100,000 it takes seconds. */
const knownLayOuts = new Map<string, Promise<LaidOut>>();
const MOST_KNOWN = 4;

/** Texts laid out by similarity, as `layOutBySimilarity` does. */
export function laidOut(threads: Threads, texts: string[]): Promise<LaidOut> {
  const digest = createHash('sha256').update(JSON.stringify(texts)).digest('base64');
  const found = knownLayOuts.get(digest) ?? threads.run('layOutBySimilarity', { texts });
  keepRecent(knownLayOuts, digest, found, MOST_KNOWN);
  found.catch(() => knownLayOuts.delete(digest));
  return found;
}
