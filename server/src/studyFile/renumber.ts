import { gunzipSync, gzipSync } from 'node:zlib';
import type { FileTable, Kind } from './tables.js';

/** How numbers and ids of rows become others. */
export interface Renumbering {
  int: (kind: Kind, value: number) => number;
  uuid: (id: string) => string;
}

/** A row as PostgreSQL makes it JSON. */
export type FileRow = Record<string, unknown>;

/** What the members of JSON are called that hold numbers of rows, without case, underscores and a plural's s. */
const KIND_OF_KEY: Readonly<Record<string, Kind>> = {
  ...{ studyid: 'study', importid: 'import', variableid: 'variable', questionid: 'question' },
  ...{ respondentid: 'respondent', responseid: 'response', lastresponseid: 'response' },
  ...{ runid: 'run', sampleid: 'sample', accountid: 'account', coderid: 'account' },
  ...{ authorid: 'account', readerid: 'account', checkedby: 'account', decidedby: 'account' },
  ...{ drawnby: 'account', closedby: 'account', firstcoder: 'account', savedby: 'account' },
};
/** Records of these tables have a number of their own. */
const KIND_OF_RECORD: Readonly<Record<string, Kind>> = {
  ...{ study: 'study', question: 'question', variable: 'variable', respondent: 'respondent' },
};
/** A uuid wherever it stands in a text. */
export const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/giu;
const INT_BYTES = 4;
/** What a packed page may unpack to: more is made to fill the memory. */
const LARGEST_PAGE = 128 * 1024 * 1024;

const kindOfKey = (key: string): Kind | undefined =>
  KIND_OF_KEY[key.toLowerCase().replaceAll('_', '').replace(/s$/u, '')];

/** A row with all numbers and ids of rows in it made others: in columns, in JSON, and in what is packed. */
export function renumberRow(table: FileTable, row: FileRow, by: Renumbering): FileRow {
  const { name, numbers, ints = {}, bytes = {} } = table;
  return Object.fromEntries(
    Object.entries(row).map(([column, value]) => {
      if (value === null) return [column, value];
      if (column === 'id' && numbers) return [column, by.int(numbers, Number(value))];
      const kind = ints[column];
      if (kind) return [column, asKind(value, kind, by)];
      const packed = bytes[column];
      if (packed) return [column, renumberBytes(value, packed, by)];
      if (isUuid(value)) return [column, by.uuid(value)];
      if (typeof value !== 'object') return [column, value];
      return [column, renumberJson(value, by, name === 'change' && column === 'diff', column)];
    }),
  );
}

const isUuid = (value: unknown): value is string =>
  typeof value === 'string' && value.length === 36 && value.replace(UUID, '') === '';

const asKind = (value: unknown, kind: Kind, by: Renumbering): unknown =>
  Array.isArray(value)
    ? value.map((one) => by.int(kind, Number(one)))
    : by.int(kind, Number(value));

/** @param isDiff whether its members are changes of tables @param of the column, for what has no name of its own */
function renumberJson(value: unknown, by: Renumbering, isDiff: boolean, of = ''): unknown {
  if (typeof value === 'string') return renumberText(value, by);
  if (Array.isArray(value)) return value.map((one) => renumberJson(one, by, false, of));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, member]: [string, unknown]) => {
      if (isDiff) return [key, renumberDiff(key, member, by)];
      const name = isUuid(key) ? by.uuid(key) : key;
      // what somebody is, by the number of the variable
      if (of === 'background' && /^\d+$/u.test(key))
        return [String(by.int('variable', Number(key))), member];
      // a theme's answers are named by themselves
      const kind = of === 'themes' && key === 'answers' ? 'response' : kindOfKey(key);
      if (kind && isInts(member)) return [name, asKind(member, kind, by)];
      return [name, renumberJson(member, by, false, key === 'background' ? key : of)];
    }),
  );
}

const isInts = (value: unknown): boolean =>
  Number.isInteger(value) || (Array.isArray(value) && value.every(Number.isInteger));

/** A change of one table: records of some have a number of their own. */
function renumberDiff(table: string, part: unknown, by: Renumbering): unknown {
  const kind = KIND_OF_RECORD[table];
  const record = (one: unknown): unknown => {
    const renumbered = renumberJson(one, by, false);
    if (!kind || typeof renumbered !== 'object' || renumbered === null) return renumbered;
    return { ...renumbered, id: by.int(kind, Number(Reflect.get(renumbered, 'id'))) };
  };
  const { added, updated, removed } = part as {
    added: unknown[];
    updated: { from: unknown; to: unknown }[];
    removed: unknown[];
  };
  return {
    added: added.map(record),
    updated: updated.map(({ from, to }) => ({ from: record(from), to: record(to) })),
    removed: removed.map(record),
  };
}

/** Ids in a text, and in an address the variables by which a table or a list is asked for. */
function renumberText(text: string, by: Renumbering): string {
  return text
    .replace(UUID, (id) => by.uuid(id))
    .replace(
      /((?:^|[?&])(?:by|where)=)(\d+)/gu,
      (_, name: string, id: string) => name + by.int('variable', Number(id)),
    );
}

/** @param hex bytes as PostgreSQL writes them in JSON */
function renumberBytes(
  hex: unknown,
  packed: NonNullable<FileTable['bytes']>[string],
  by: Renumbering,
): string {
  if (typeof hex !== 'string') return '';
  const bytes = Buffer.from(hex.replace(/^\\x/u, ''), 'hex');
  const asHex = (all: Buffer) => `\\x${all.toString('hex')}`;
  if (packed === 'gzippedJson') {
    const content: unknown = JSON.parse(
      gunzipSync(bytes, { maxOutputLength: LARGEST_PAGE }).toString(),
    );
    return asHex(gzipSync(JSON.stringify(renumberJson(content, by, false)), { level: 1 }));
  }
  for (let at = 0; at + INT_BYTES <= bytes.length; at += INT_BYTES)
    bytes.writeInt32LE(by.int(packed.ints, bytes.readInt32LE(at)), at);
  return asHex(bytes);
}
