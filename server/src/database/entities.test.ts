import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { MikroORM } from '@mikro-orm/postgresql';
import { createDatabase } from '../../test/databases.js';
import { openDatabase, rows } from './index.js';

let database: Awaited<ReturnType<typeof createDatabase>>;
let orm: MikroORM;
beforeAll(async () => {
  database = await createDatabase();
  orm = await openDatabase(database.url, { migrate: false });
});
afterAll(async () => {
  await orm.close();
  await database.drop();
});

/** The migrator's own; rows of any table as JSON, and counters of triggers, both without a key of their own. */
const WITHOUT_ENTITY = ['mikro_orm_migrations', 'bin_row', 'written'];

const sqlName = (type: string) =>
  type
    .replace(/^timestamptz.*/u, 'timestamp with time zone')
    .replace('serial', 'int')
    .replace(/^int\b/u, 'integer')
    .replace('varchar(255)', 'text');

test('every table has an entity that names its columns, types, nulls, defaults and keys, and no others', async () => {
  const stored = await rows<{ table: string; column: string }>(
    orm.em.fork(),
    `select c.relname as table, a.attname as column, format_type(a.atttypid, a.atttypmod) as type,
       not a.attnotnull as "isNullable", a.attidentity <> '' as "isGenerated",
       d.adbin is not null as "hasDefault",
       exists (select 1 from pg_index i where i.indrelid = c.oid and i.indisprimary
         and a.attnum = any(i.indkey)) as "isKey"
     from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
     left join pg_attrdef d on d.adrelid = c.oid and d.adnum = a.attnum
     where c.relnamespace = 'public'::regnamespace and c.relkind = 'r'
       and c.relname <> all(:withoutEntity::text[])`,
    { withoutEntity: WITHOUT_ENTITY },
  );
  const described = Object.values(orm.getMetadata().getAll()).flatMap((entity) =>
    entity.props.map((property) => ({
      table: entity.tableName,
      column: property.fieldNames[0]!,
      type: sqlName(property.columnTypes[0]!),
      isNullable: property.nullable === true,
      isGenerated: property.autoincrement === true,
      hasDefault: property.defaultRaw !== undefined,
      isKey: property.primary === true,
    })),
  );
  const inOrder = <Column extends { table: string; column: string }>(columns: Column[]) =>
    columns.toSorted((a, b) => `${a.table}.${a.column}`.localeCompare(`${b.table}.${b.column}`));
  expect(inOrder(described)).toEqual(inOrder(stored));
});
