import type { Group } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';
import { problems } from '../wording/problems.js';

const columns = `id, study_id as "studyId", name, description, rule, position`;

/** The groups of a study in order. */
export const readGroups = (em: EntityManager, studyId: number): Promise<Group[]> =>
  rows(em, `select ${columns} from saved_group where study_id = :studyId order by position, name`, {
    studyId,
  });

/** @throws Problem not_found */
export async function findGroup(em: EntityManager, studyId: number, id: string): Promise<Group> {
  const [group] = await rows<Group>(
    em,
    `select ${columns} from saved_group where study_id = :studyId and id = :id`,
    { studyId, id },
  );
  if (!group) throw problems.notFound('group');
  return group;
}
