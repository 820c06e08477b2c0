import type { EntityManager } from '@mikro-orm/postgresql';
import { eachPage } from './eachPage.js';

/** What each id was in the study that was copied first, for those that are a copy's. */
export async function readOrigins(
  tx: EntityManager,
  studyId: number,
): Promise<Map<string, string>> {
  const origins = new Map<string, string>();
  await eachPage<{ id: string; origin: string }>(
    tx,
    'select id, origin from copied_id where study_id = :studyId',
    { studyId },
    (page) => {
      for (const { id, origin } of page) origins.set(id, origin);
    },
  );
  return origins;
}
