import type { EntityManager } from '@mikro-orm/postgresql';
import { row, rows } from './query.js';

/** How far the database was written when something was read. */
export interface DataVersion {
  /** Equal only as long as everything is; null within a change that is being made. */
  snapshot: string | null;
  /** Equal only as long as people and their background are. */
  people: string;
  /** The same of who answered what in which words. */
  answers: string;
}

const stampsOf = (what: 'people' | 'answers') =>
  `(select mod(coalesce(sum(stamp), 0), 2::numeric ^ 62)::bigint::text from written where what = '${what}')`;

/**
 * What a reading now sees, or something older: what is read after asking is at least as new. Nothing is taken for the
 * same in a database that was restored meanwhile, be it of the same name, or in another cluster at the same address.
 */
export const readDataVersion = (em: EntityManager): Promise<DataVersion> =>
  row(
    em,
    `select case when pg_current_xact_id_if_assigned() is null
         then concat_ws(' ', pg_current_snapshot(), pg_postmaster_start_time(), d.oid) end as snapshot,
       ${stampsOf('people')} as people, ${stampsOf('answers')} as answers
     from pg_database d where d.datname = current_database()`,
  );

/** Adds up what was written, so that what is asked at every reading stays short. */
export const compactDataVersions = (em: EntityManager): Promise<unknown> =>
  rows(
    em,
    `with gone as (delete from written returning what, stamp)
     insert into written (what, stamp)
       select what, mod(sum(stamp), 2::numeric ^ 62) from gone group by what`,
  );
