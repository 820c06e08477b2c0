import type { TableDiff } from '@yellow-thread/core/coding';
import { columnOf, shapes, type ChangeTables } from './changeTables.js';
import type { SqlValues } from './query.js';

type Table = keyof ChangeTables;

/** SQL with its parameters. */
export interface Statement {
  sql: string;
  values: SqlValues;
}

/** Deletes the records that are still as they are given. */
export function deletion(table: Table, records: readonly object[]): Statement {
  const { key, fields } = shapes[table];
  return {
    sql: `delete from ${table} using ${asTable(table, 'gone', Object.keys(fields))}
      where ${equal(table, 'gone', key)} and ${same(table, 'gone')}`,
    values: columnsOf(table, records, Object.keys(fields)),
  };
}

export function insertion(table: Table, records: readonly object[]): Statement {
  const fields = Object.keys(shapes[table].fields);
  return {
    sql: `insert into ${table} (${fields.map(columnOf).join(', ')})
      select * from ${asTable(table, 'fresh', fields)}`,
    values: columnsOf(table, records, fields),
  };
}

/** Updates the records that are still as `from` says; their keys stay. */
export function update(table: Table, records: TableDiff<object>['updated']): Statement {
  const { key, fields } = shapes[table];
  const rest = Object.keys(fields).filter((field) => !key.includes(field));
  const set = rest.map((field) => `${columnOf(field)} = changed."to_${field}"`);
  // a record that is all key (what is in a bundle) has nothing to be updated
  const nothing = `${columnOf(key[0]!)} = ${table}.${columnOf(key[0]!)}`;
  return {
    sql: `update ${table} set ${set.join(', ') || nothing}
      from ${asTable(table, 'changed', Object.keys(fields), rest)}
      where ${equal(table, 'changed', key)} and ${same(table, 'changed')}`,
    values: {
      ...columnsOf(
        table,
        records.map(({ from }) => from),
        Object.keys(fields),
      ),
      ...columnsOf(
        table,
        records.map(({ to }) => to),
        rest,
        'to_',
      ),
    },
  };
}

/** Fields of the records as parameters, an array each: PostgreSQL reads these several times as fast as JSON. */
function columnsOf(
  table: Table,
  records: readonly object[],
  wanted: readonly string[],
  prefix = '',
): SqlValues {
  const { fields, formerly = {} } = shapes[table];
  const valueOf = (record: object, field: string) => {
    const value: unknown = Reflect.get(record, field) ?? formerly[field] ?? null;
    if (value === null || typeof value === 'number' || typeof value === 'boolean') return value;
    return typeof value === 'string' && fields[field] !== 'jsonb' ? value : JSON.stringify(value);
  };
  return Object.fromEntries(
    wanted.map((field) => [prefix + field, records.map((record) => valueOf(record, field))]),
  );
}

/** These parameters as a table; a column is named as its parameter. */
const asTable = (
  table: Table,
  alias: string,
  wanted: readonly string[],
  to: readonly string[] = [],
) => {
  const { fields } = shapes[table];
  const parameters = [
    ...wanted.map((field) => `:${field}::${fields[field]}[]`),
    ...to.map((field) => `:to_${field}::${fields[field]}[]`),
  ];
  const columns = [...wanted, ...to.map((field) => `to_${field}`)];
  return `unnest(${parameters.join(', ')}) as ${alias}(${columns.map((name) => `"${name}"`).join(', ')})`;
};

/** By `=`, which the database can look up. */
const equal = (table: Table, alias: string, key: readonly string[]) =>
  key.map((field) => `${table}.${columnOf(field)} = ${alias}."${field}"`).join(' and ');

/** Whether the record is as it is given, where that may be null too. */
const same = (table: Table, alias: string) =>
  Object.keys(shapes[table].fields)
    .map((field) => `${table}.${columnOf(field)} is not distinct from ${alias}."${field}"`)
    .join(' and ');
