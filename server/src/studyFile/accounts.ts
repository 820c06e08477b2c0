import type { EntityManager } from '@mikro-orm/postgresql';
import { row } from '../database/index.js';
import { FROM_COPY } from './saveCopy.js';

/** The account that stands for somebody whom only a copy names: nobody can sign in with it. */
export async function accountFor(tx: EntityManager, name: string): Promise<number> {
  const { id } = await row<{ id: number }>(
    tx,
    `with made as (
       insert into account (name, password_hash) values (:name, '') on conflict do nothing returning id)
     select id from made union all select id from account where name = :name limit 1`,
    { name: `${name}${FROM_COPY}` },
  );
  return id;
}
