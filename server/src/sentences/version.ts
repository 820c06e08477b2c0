import type { EntityManager } from '@mikro-orm/postgresql';
import { row } from '../database/index.js';
import { encoderInUse } from './encoder.js';

/** Changes whenever there are other vectors in a study; null where there is no encoder. */
export async function vectorsVersion(em: EntityManager, studyId: number): Promise<string | null> {
  const encoder = await encoderInUse();
  if (!encoder) return null;
  const { count } = await row<{ count: number }>(
    em,
    'select count(*)::int as count from sentence_vector where study_id = :studyId and encoder = :encoder',
    { studyId, encoder: encoder.id },
  );
  return `${encoder.id} ${count}`;
}
