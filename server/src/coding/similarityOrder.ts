import { createHash } from 'node:crypto';
import type { orderTextsBySimilarity } from '@yellow-thread/core/similarity';
import type { EntityManager } from '@mikro-orm/postgresql';
import type { Threads } from '../jobs/index.js';
import { vectorsOfTexts, vectorsVersion } from '../sentences/index.js';
import { VersionedCache } from '../versionedCache.js';

type SimilarityOrder = ReturnType<typeof orderTextsBySimilarity>;
/** The order of the texts that were asked for last, by their digest: for 100,000 it takes seconds. */
const MOST_BYTES = 2 ** 24;
/** Of a text: its place, and what it belongs to. */
const BYTES_EACH = 16;
const cache = new VersionedCache<string, Promise<SimilarityOrder>>(MOST_BYTES);

/** Texts of a study ordered by similarity, as `orderTextsBySimilarity` does, in meaning too where they were read for it. */
export async function similarityOrder(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  texts: string[],
): Promise<SimilarityOrder> {
  const digest = createHash('sha256').update(JSON.stringify(texts)).digest('base64');
  const version = (await vectorsVersion(em, studyId)) ?? '';
  return cache.get(digest, version, () => {
    const value = vectorsOfTexts(em, studyId, texts).then((vectors) =>
      threads.run('orderAlike', { texts, vectors }),
    );
    return { value, bytes: value.then(() => BYTES_EACH * texts.length) };
  });
}
