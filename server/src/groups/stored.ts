import type { Group } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { asRecord, GroupEntity } from '../database/index.js';
import { problems } from '../wording/problems.js';

/** The groups of a study in order. */
export async function readGroups(em: EntityManager, studyId: number): Promise<Group[]> {
  const order = { position: 'asc', name: 'asc' } as const;
  const groups = await em.find(GroupEntity, { studyId }, { orderBy: order });
  return groups.map((group) => asRecord('saved_group', group));
}

/** @throws Problem not_found */
export async function findGroup(em: EntityManager, studyId: number, id: string): Promise<Group> {
  const group = await em.findOne(GroupEntity, { studyId, id });
  if (!group) throw problems.notFound('group');
  return asRecord('saved_group', group);
}
