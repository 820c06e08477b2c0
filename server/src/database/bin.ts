import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from './query.js';

// Rows that were deleted with all that hangs on them by foreign keys, and the way back.

/** How long what was deleted can be restored. */
export const BIN_DAYS = 30;

/** Rows to be deleted, as a condition on `t`. */
export interface Root {
  table: string;
  where: string;
  values: (number | string | number[])[];
}

interface Key {
  child: string;
  column: string;
  parent: string;
  target: string;
  type: string;
  /** Whether the child goes with its parent, or only its link to it. */
  cascades: boolean;
}

const isName = /^[a-z_]+$/u;

async function readKeys(em: EntityManager): Promise<Key[]> {
  const keys = await rows<Key>(
    em,
    `select c.conrelid::regclass::text as child, a.attname as column,
       c.confrelid::regclass::text as parent, f.attname as target,
       format_type(f.atttypid, f.atttypmod) as type, c.confdeltype = 'c' as cascades
     from pg_constraint c
     join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
     join pg_attribute f on f.attrelid = c.confrelid and f.attnum = c.confkey[1]
     where c.contype = 'f' and c.confdeltype in ('c', 'n') and cardinality(c.conkey) = 1
       and c.conrelid <> c.confrelid and c.connamespace = 'public'::regnamespace`,
  );
  return keys.filter(({ child, column, parent }) =>
    [child, column, parent].every((name) => isName.test(name)),
  );
}

/** Tables that rows may go from, each behind all that its rows may hang on. */
function inOrder(roots: readonly string[], keys: readonly Key[]): string[] {
  const order: string[] = [];
  const visit = (table: string) => {
    if (order.includes(table)) return;
    for (const { child, parent, cascades } of keys) if (parent === table && cascades) visit(child);
    order.unshift(table);
  };
  roots.forEach(visit);
  return order;
}

/**
 * Deletes rows, and with them whatever their foreign keys take along, and keeps all of it under an import.
 *
 * @param roots of several that hang on each other in any order
 */
export async function moveToBin(
  em: EntityManager,
  importId: number,
  roots: readonly Root[],
): Promise<void> {
  const keys = await readKeys(em);
  const tables = inOrder(
    roots.map(({ table }) => table),
    keys,
  );
  const gone = (key: Key) =>
    `t.${key.column} in (select (row->>'${key.target}')::${key.type} from bin_row
       where import_id = ? and "table" = '${key.parent}' and what = 'deleted')`;
  const goingFrom = (table: string) => {
    const own = roots.filter((root) => root.table === table);
    const along = keys.filter(
      ({ child, parent, cascades }) => cascades && child === table && tables.includes(parent),
    );
    return {
      where: [...own.map(({ where }) => where), ...along.map(gone)]
        .map((one) => `(${one})`)
        .join(' or '),
      values: [...own.flatMap(({ values }) => values), ...along.map(() => importId)],
    };
  };
  for (const table of tables) {
    const { where, values } = goingFrom(table);
    await rows(
      em,
      `insert into bin_row (import_id, what, "table", row)
       select ?, 'deleted', '${table}', to_jsonb(t) from ${table} t where ${where}`,
      [importId, ...values],
    );
  }
  for (const key of keys)
    if (!key.cascades && tables.includes(key.parent))
      await rows(
        em,
        `insert into bin_row (import_id, what, "table", "column", row)
         select ?, 'cut', '${key.child}', '${key.column}', to_jsonb(t)
         from ${key.child} t where ${gone(key)}`,
        [importId, importId],
      );
  // children first and all at once: by the foreign keys they would go one by one
  for (const table of tables.toReversed()) {
    const { where, values } = goingFrom(table);
    await rows(em, `delete from ${table} t where ${where}`, values);
  }
}

/** Keeps rows as they are before something else overwrites them. */
export const keepBefore = (
  em: EntityManager,
  importId: number,
  { table, where, values }: Root,
): Promise<unknown> =>
  rows(
    em,
    `insert into bin_row (import_id, what, "table", row)
     select ?, 'overwritten', '${table}', to_jsonb(t) from ${table} t where ${where}`,
    [importId, ...values],
  );

/** Puts back what was deleted under an import. @throws a constraint's error where something else took its place */
export async function restoreDeleted(em: EntityManager, importId: number): Promise<void> {
  const kept = await rows<{ table: string; what: string; column: string | null }>(
    em,
    `select distinct "table", what, "column" from bin_row where import_id = ?`,
    [importId],
  );
  const keys = await readKeys(em);
  const deleted = kept.filter(({ what }) => what === 'deleted').map(({ table }) => table);
  for (const table of inOrder(deleted, keys).filter((one) => deleted.includes(one)))
    await rows(
      em,
      `insert into ${table} overriding system value
       select (jsonb_populate_record(null::${table}, row)).* from bin_row
       where import_id = ? and "table" = '${table}' and what = 'deleted'`,
      [importId],
    );
  for (const { table, what, column } of kept)
    if (what === 'cut')
      await rows(
        em,
        `update ${table} t set ${column} = (jsonb_populate_record(null::${table}, b.row)).${column}
         from bin_row b
         where b.import_id = ? and b."table" = '${table}' and b."column" = '${column}'
           and b.what = 'cut' and t.id::text = b.row->>'id' and t.${column} is null`,
        [importId],
      );
}

/** Lets go of what has lain in the bin for its time. */
export async function emptyBin(em: EntityManager): Promise<void> {
  const over = `< now() - interval '${BIN_DAYS} days'`;
  await rows(
    em,
    `delete from bin_row b using import i where i.id = b.import_id and i.undone_at ${over}`,
  );
  await rows(em, `delete from write_up where binned_at ${over}`);
}
