import type { Change } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isoTime, rows } from '../database/index.js';

/** What was done to a study, newest first. */
export async function readHistory(
  em: EntityManager,
  studyId: number,
  {
    code,
    by,
    before,
    limit,
  }: {
    code?: string | undefined;
    by?: number | undefined;
    before?: number | undefined;
    limit: number;
  },
) {
  const conditions = [
    'c.study_id = :studyId',
    ...(code === undefined ? [] : ['c.codes @> array[cast(:code as uuid)]']),
    ...(by === undefined ? [] : ['c.account_id = :by']),
    ...(before === undefined ? [] : ['c.id < :before']),
  ];
  const changes = await rows<Change>(
    em,
    `select c.id, c.summary, a.name as by, c.undone_at is not null as undone,
       ${isoTime('c.made_at')} as "madeAt",
       c.touched
     from change c join account a on a.id = c.account_id
     where ${conditions.join(' and ')} order by c.id desc limit :limit`,
    { studyId, code: code ?? null, by: by ?? null, before: before ?? null, limit },
  );
  return { changes, next: changes.length === limit ? changes.at(-1)!.id : null };
}
