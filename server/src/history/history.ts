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
  const conditions = ['c.study_id = ?'];
  const values: (string | number)[] = [studyId];
  const narrow = (condition: string, value: string | number | undefined) => {
    if (value === undefined) return;
    conditions.push(condition);
    values.push(value);
  };
  narrow('c.codes @> array[?::uuid]', code);
  narrow('c.account_id = ?', by);
  narrow('c.id < ?', before);
  const changes = await rows<Change>(
    em,
    `select c.id, c.summary, a.name as by, c.undone_at is not null as undone,
       ${isoTime('c.made_at')} as "madeAt",
       c.touched
     from change c join account a on a.id = c.account_id
     where ${conditions.join(' and ')} order by c.id desc limit ?`,
    [...values, limit],
  );
  return { changes, next: changes.length === limit ? changes.at(-1)!.id : null };
}
