import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from './query.js';

/** A foreign key between two tables, told by its first column: all of ours are ids, alone or with the study's. */
export interface ForeignKey {
  child: string;
  column: string;
  parent: string;
  target: string;
  type: string;
  /** What becomes of the child when its parent goes: it goes too, loses its link, or the parent may not go. */
  onDelete: 'cascade' | 'unlink' | 'refuse';
}

const isName = /^[a-z_]+$/u;

/** All foreign keys but for those of a table to itself. */
export async function readForeignKeys(em: EntityManager): Promise<ForeignKey[]> {
  const keys = await rows<ForeignKey>(
    em,
    `select c.conrelid::regclass::text as child, a.attname as column,
       c.confrelid::regclass::text as parent, f.attname as target,
       format_type(f.atttypid, f.atttypmod) as type,
       case c.confdeltype when 'c' then 'cascade' when 'n' then 'unlink' else 'refuse' end as "onDelete"
     from pg_constraint c
     join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
     join pg_attribute f on f.attrelid = c.confrelid and f.attnum = c.confkey[1]
     where c.contype = 'f' and c.conrelid <> c.confrelid and c.connamespace = 'public'::regnamespace`,
  );
  // they are written into statements
  return keys.filter(({ child, column, parent }) =>
    [child, column, parent].every((name) => isName.test(name)),
  );
}

/** `roots` and the tables that depend on them by some keys, each behind all that its rows may depend on. */
export function behindTheirParents(
  roots: readonly string[],
  keys: readonly ForeignKey[],
): string[] {
  const order: string[] = [];
  const visit = (table: string) => {
    if (order.includes(table)) return;
    for (const { child, parent } of keys) if (parent === table) visit(child);
    order.unshift(table);
  };
  roots.forEach(visit);
  return order;
}
