import type { TableDiff } from '@yellow-thread/core/coding';
import { shapes, type ChangeTables } from './changeTables.js';

type Table = keyof ChangeTables;

/** SQL with its parameters. */
export interface Statement {
  sql: string;
  values: (string | number | boolean | null)[][];
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
    sql: `insert into ${table} (${fields.map(column).join(', ')})
      select * from ${asTable(table, 'fresh', fields)}`,
    values: columnsOf(table, records, fields),
  };
}

/** Updates the records that are still as `from` says; their keys stay. */
export function update(table: Table, records: TableDiff<object>['updated']): Statement {
  const { key, fields } = shapes[table];
  const rest = Object.keys(fields).filter((field) => !key.includes(field));
  const set = rest.map((field) => `${column(field)} = changed."to ${field}"`);
  // a record that is all key (what is in a bundle) has nothing to be updated
  const nothing = `${column(key[0]!)} = ${table}.${column(key[0]!)}`;
  const to = rest.map((field) => [field, `to ${field}`] as const);
  return {
    sql: `update ${table} set ${set.join(', ') || nothing}
      from ${asTable(table, 'changed', [...Object.keys(fields), ...to])}
      where ${equal(table, 'changed', key)} and ${same(table, 'changed')}`,
    values: [
      ...columnsOf(
        table,
        records.map(({ from }) => from),
        Object.keys(fields),
      ),
      ...columnsOf(
        table,
        records.map(({ to }) => to),
        rest,
      ),
    ],
  };
}

/** Fields of the records as parameters, an array each: PostgreSQL reads these several times as fast as JSON. */
function columnsOf(table: Table, records: readonly object[], wanted: string[]) {
  const { fields, formerly = {} } = shapes[table];
  return wanted.map((field) =>
    records.map((record) => {
      const value: unknown = Reflect.get(record, field) ?? formerly[field] ?? null;
      if (value === null || typeof value === 'number' || typeof value === 'boolean') return value;
      return typeof value === 'string' && fields[field] !== 'jsonb' ? value : JSON.stringify(value);
    }),
  );
}

/** These parameters as a table; a column has its field's name, or that beside it. */
const asTable = (
  table: Table,
  alias: string,
  wanted: readonly (string | readonly [field: string, name: string])[],
) => {
  const columns = wanted.map((one) => (typeof one === 'string' ? ([one, one] as const) : one));
  return `unnest(${columns.map(([field]) => `?::${shapes[table].fields[field]}[]`).join(', ')})
    as ${alias}(${columns.map(([, name]) => `"${name}"`).join(', ')})`;
};

const column = (field: string) =>
  `"${field.replaceAll(/[A-Z]/g, (capital) => `_${capital.toLowerCase()}`)}"`;

/** By `=`, which the database can look up. */
const equal = (table: Table, alias: string, key: readonly string[]) =>
  key.map((field) => `${table}.${column(field)} = ${alias}."${field}"`).join(' and ');

/** Whether the record is as it is given, where that may be null too. */
const same = (table: Table, alias: string) =>
  Object.keys(shapes[table].fields)
    .map((field) => `${table}.${column(field)} is not distinct from ${alias}."${field}"`)
    .join(' and ');
