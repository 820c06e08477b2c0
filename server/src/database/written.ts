import type { EntityManager } from '@mikro-orm/postgresql';
import { row } from './query.js';

/** How far the database was written when something was read. */
export interface Written {
  /** Equal only as long as everything is; null within a change that is being made. */
  snapshot: string | null;
  /** Equal only as long as people and their background are. */
  people: number;
  /** The same of who answered what in which words. */
  answers: number;
}

/** What a reading now sees, or something older: what is read after asking is at least as new. */
export const readWritten = (em: EntityManager): Promise<Written> =>
  row(
    em,
    `select case when pg_current_xact_id_if_assigned() is null
         then pg_current_snapshot()::text end as snapshot,
       (count(*) filter (where what = 'people'))::int as people,
       (count(*) filter (where what = 'answers'))::int as answers
     from written`,
  );
