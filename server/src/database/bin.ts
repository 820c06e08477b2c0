import type { EntityManager } from '@mikro-orm/postgresql';
import { behindTheirParents, readForeignKeys, type ForeignKey } from './foreignKeys.js';
import { rows, type SqlValues } from './query.js';

// Rows that were deleted with all that depends on them by foreign keys, and the way back.

/** How long what was deleted can be restored. */
export const BIN_DAYS = 30;

/** Rows to be deleted, as a condition on `t`. */
export interface Root {
  table: string;
  where: string;
  /** By name; `:importId` is the import under which they are kept. */
  values: SqlValues;
}

const cascading = (keys: readonly ForeignKey[]) =>
  keys.filter(({ onDelete }) => onDelete === 'cascade');

/**
 * Deletes rows, and with them whatever their foreign keys take along, and keeps all of it under an import.
 *
 * @param roots of several that depend on each other in any order
 */
export async function moveToBin(
  em: EntityManager,
  importId: number,
  roots: readonly Root[],
): Promise<void> {
  const keys = await readForeignKeys(em);
  const tables = behindTheirParents(
    roots.map(({ table }) => table),
    cascading(keys),
  );
  const gone = (key: ForeignKey) =>
    `t.${key.column} in (select (row->>'${key.target}')::${key.type} from bin_row
       where import_id = :importId and "table" = '${key.parent}' and what = 'deleted')`;
  const goingFrom = (table: string) => {
    const own = roots.filter((root) => root.table === table);
    const along = cascading(keys).filter(
      ({ child, parent }) => child === table && tables.includes(parent),
    );
    return {
      where: [...own.map(({ where }) => where), ...along.map(gone)]
        .map((one) => `(${one})`)
        .join(' or '),
      values: { ...Object.assign({}, ...own.map(({ values }) => values)), importId } as SqlValues,
    };
  };
  for (const table of tables) {
    const { where, values } = goingFrom(table);
    await rows(
      em,
      `insert into bin_row (import_id, what, "table", row)
       select :importId, 'deleted', '${table}', to_jsonb(t) from ${table} t where ${where}`,
      values,
    );
  }
  for (const key of keys)
    if (key.onDelete === 'unlink' && tables.includes(key.parent))
      await rows(
        em,
        `insert into bin_row (import_id, what, "table", "column", row)
         select :importId, 'cut', '${key.child}', '${key.column}', to_jsonb(t)
         from ${key.child} t where ${gone(key)}`,
        { importId },
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
     select :importId, 'overwritten', '${table}', to_jsonb(t) from ${table} t where ${where}`,
    { ...values, importId },
  );

/** Puts back what was deleted under an import. @throws a constraint's error where something else took its place */
export async function restoreDeleted(em: EntityManager, importId: number): Promise<void> {
  const kept = await rows<{ table: string; what: string; column: string | null }>(
    em,
    `select distinct "table", what, "column" from bin_row where import_id = :importId`,
    { importId },
  );
  const keys = await readForeignKeys(em);
  const deleted = kept.filter(({ what }) => what === 'deleted').map(({ table }) => table);
  const inOrder = behindTheirParents(deleted, cascading(keys));
  for (const table of inOrder.filter((one) => deleted.includes(one)))
    await rows(
      em,
      `insert into ${table} overriding system value
       select (jsonb_populate_record(null::${table}, row)).* from bin_row
       where import_id = :importId and "table" = '${table}' and what = 'deleted'`,
      { importId },
    );
  for (const { table, what, column } of kept)
    if (what === 'cut')
      await rows(
        em,
        `update ${table} t set ${column} = (jsonb_populate_record(null::${table}, b.row)).${column}
         from bin_row b
         where b.import_id = :importId and b."table" = '${table}' and b."column" = '${column}'
           and b.what = 'cut' and t.id::text = b.row->>'id' and t.${column} is null`,
        { importId },
      );
}

/** Deletes what has lain in the bin for its time. */
export async function emptyBin(em: EntityManager): Promise<void> {
  const over = `< now() - interval '${BIN_DAYS} days'`;
  await rows(
    em,
    `delete from bin_row b using import i where i.id = b.import_id and i.undone_at ${over}`,
  );
  await rows(em, `delete from write_up where binned_at ${over}`);
}
