import { createHash } from 'node:crypto';
import type { layOutBySimilarity } from '@yellow-thread/core/text';
import type { Threads } from '../jobs/index.js';

type LaidOut = ReturnType<typeof layOutBySimilarity>;
/** How the texts that were asked for last are laid out, by their digest: for 100,000 it takes seconds. */
const knownLayOuts = new Map<string, Promise<LaidOut>>();
const MOST_KNOWN = 4;

/** Texts laid out by similarity, as `layOutBySimilarity` does. */
export function laidOut(threads: Threads, texts: string[]): Promise<LaidOut> {
  const digest = createHash('sha256').update(JSON.stringify(texts)).digest('base64');
  const found = knownLayOuts.get(digest) ?? threads.run('layOutBySimilarity', { texts });
  // the one that was asked for last is the last to go
  knownLayOuts.delete(digest);
  knownLayOuts.set(digest, found);
  for (const least of [...knownLayOuts.keys()].slice(0, -MOST_KNOWN)) knownLayOuts.delete(least);
  found.catch(() => knownLayOuts.delete(digest));
  return found;
}
