import { isEmptyRecordsDiff, reverseRecordsDiff, type TableDiff } from '@yellow-thread/core/coding';
import type { EntityManager } from '@mikro-orm/postgresql';
import { problems, type Problem } from '../problems.js';
import { shapes, type ChangeDiff, type ChangeTables, type TableShape } from './changeTables.js';
import { row, rows } from './query.js';

const tables = Object.keys(shapes) as (keyof ChangeTables)[];

const column = (field: string) =>
  `"${field.replaceAll(/[A-Z]/g, (capital) => `_${capital.toLowerCase()}`)}"`;

/** Who makes a change, where, and in which tab of theirs: that one knows of it already. */
export interface ChangeMaker {
  studyId: number;
  accountId: number;
  tab?: string | undefined;
}

/**
 * Makes a change and records it. Every record must still be as the change's `from` says.
 *
 * @param em in a transaction
 * @param summary what was done, in words that follow "Undid: "
 * @throws Problem changed_meanwhile when a record is no longer as the change expects it
 */
export async function makeChange(
  em: EntityManager,
  change: ChangeMaker & { summary: string; diff: ChangeDiff },
): Promise<void> {
  if (isEmptyRecordsDiff(change.diff)) return;
  await applyOrThrow(em, change.diff, problems.changedMeanwhile());
  await rows(
    em,
    `update change set abandoned = true
     where study_id = ? and account_id = ? and undone_at is not null and not abandoned`,
    [change.studyId, change.accountId],
  );
  await rows(
    em,
    'insert into change (study_id, account_id, summary, codes, diff) values (?, ?, ?, ?::uuid[], ?)',
    [
      change.studyId,
      change.accountId,
      change.summary,
      codesIn(change.diff),
      JSON.stringify(change.diff),
    ],
  );
  await tellChange(em, change, change.diff);
}

interface RecordedChange {
  id: number;
  summary: string;
  diff: ChangeDiff;
}

/** Takes back this person's last change of the study, and says what it was. */
export async function undoChange(em: EntityManager, maker: ChangeMaker) {
  const { studyId, accountId } = maker;
  return em.transactional(async (tx) => {
    await lockHistory(tx, studyId, accountId);
    const [last] = await rows<RecordedChange>(
      tx,
      `select id, summary, diff from change
       where study_id = ? and account_id = ? and undone_at is null order by id desc limit 1`,
      [studyId, accountId],
    );
    if (!last) throw problems.nothingToUndo();
    await applyOrThrow(tx, reverseRecordsDiff(last.diff), problems.undoCrosses(last.summary));
    await rows(tx, 'update change set undone_at = now() where id = ?', [last.id]);
    await tellChange(tx, maker, last.diff);
    return { summary: last.summary };
  });
}

/** Makes again what this person undid last, unless they changed something else since. */
export async function redoChange(em: EntityManager, maker: ChangeMaker) {
  const { studyId, accountId } = maker;
  return em.transactional(async (tx) => {
    await lockHistory(tx, studyId, accountId);
    const [next] = await rows<RecordedChange>(
      tx,
      `select id, summary, diff from change
       where study_id = ? and account_id = ? and undone_at is not null and not abandoned
       order by id limit 1`,
      [studyId, accountId],
    );
    if (!next) throw problems.nothingToRedo();
    await applyOrThrow(tx, next.diff, problems.undoCrosses(next.summary));
    await rows(tx, 'update change set undone_at = null where id = ?', [next.id]);
    await tellChange(tx, maker, next.diff);
    return { summary: next.summary };
  });
}

/** Every record that a change touches, as it is before and after. */
const recordsIn = (diff: ChangeDiff) =>
  tables.flatMap((table): ChangeTables[keyof ChangeTables][] =>
    recordsOf<ChangeTables[keyof ChangeTables]>(diff[table]),
  );
const recordsOf = <R>(part: TableDiff<R> | undefined): R[] =>
  part
    ? [...part.added, ...part.removed, ...part.updated.flatMap(({ from, to }) => [from, to])]
    : [];

/** The codes that a change is about: of themselves, or of what hangs on them. */
const codesIn = (diff: ChangeDiff): string[] => [
  ...new Set([
    ...recordsOf(diff.code).map((code) => code.id),
    ...recordsIn(diff).flatMap((record) => {
      if ('codeId' in record) return record.codeId ? [record.codeId] : [];
      return [];
    }),
  ]),
];

/** What is told of a change to whoever has the study open, when it is committed. */
export interface ToldChange {
  studyId: number;
  accountId: number;
  tab: string | null;
  tables: (keyof ChangeTables)[];
  /** The answers that it is about; null when there are too many to be named. */
  responses: number[] | null;
}
export const CHANGE_CHANNEL = 'study_change';
const MOST_NAMED = 300;

async function tellChange(em: EntityManager, maker: ChangeMaker, diff: ChangeDiff): Promise<void> {
  const responses = new Set(
    recordsIn(diff).flatMap((record) =>
      'responseId' in record && record.responseId ? [record.responseId] : [],
    ),
  );
  const told: ToldChange = {
    studyId: maker.studyId,
    accountId: maker.accountId,
    tab: maker.tab ?? null,
    tables: tables.filter((table) => diff[table]),
    responses: responses.size > MOST_NAMED ? null : [...responses],
  };
  await rows(em, 'select pg_notify(?, ?)', [CHANGE_CHANNEL, JSON.stringify(told)]);
}

/** Two tabs that undo at once take turns. */
const lockHistory = (em: EntityManager, studyId: number, accountId: number) =>
  rows(em, 'select pg_advisory_xact_lock(?, ?)', [studyId, accountId]);

/** @throws refused when a record is not as the diff expects it, or others stand on it or in its place */
async function applyOrThrow(em: EntityManager, diff: ChangeDiff, refused: Problem): Promise<void> {
  try {
    if (!(await applyDiff(em, diff))) throw refused;
  } catch (error) {
    throw isConstraintError(error) ? refused : error;
  }
}

const isConstraintError = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && String(error.code).startsWith('23');

/** @returns false when some record was not as the diff expects it */
async function applyDiff(em: EntityManager, diff: ChangeDiff): Promise<boolean> {
  let expected = 0;
  let touched = 0;
  const run = async (sql: string, records: unknown[]) => {
    if (records.length === 0) return;
    expected += records.length;
    const counted = await row<{ count: number }>(
      em,
      `with touched as (${sql} returning 1) select count(*)::int as count from touched`,
      [JSON.stringify(records)],
    );
    touched += counted.count;
  };
  // a mention may go over to another code while its own one goes: keys are checked at the end
  await rows(em, 'set constraints all deferred');
  for (const table of tables.toReversed())
    await run(deleteSql(table, shapes[table]), diff[table]?.removed ?? []);
  for (const table of tables) {
    await run(updateSql(table, shapes[table]), diff[table]?.updated ?? []);
    await run(insertSql(table, shapes[table]), diff[table]?.added ?? []);
  }
  if (touched !== expected) return false;
  await rows(em, 'set constraints all immediate');
  return true;
}

/** The records in the JSON parameter as a table named `alias`. */
const recordset = ({ fields, formerly = {} }: TableShape, alias: string) =>
  `(select r.* from jsonb_array_elements(?::jsonb) as element,
     jsonb_to_record('${JSON.stringify(formerly)}'::jsonb || element) as r(${Object.entries(fields)
       .map(([field, type]) => `"${field}" ${type}`)
       .join(', ')})) as ${alias}`;

const sameKey = (table: string, { key }: TableShape, alias: string) =>
  key.map((field) => `${table}.${column(field)} = ${alias}."${field}"`).join(' and ');

/** Keys are compared by `=` besides, which the database can look up; this must hold for nulls too. */
const same = (table: string, fields: readonly string[], alias: string) =>
  fields
    .map((field) => `${table}.${column(field)} is not distinct from ${alias}."${field}"`)
    .join(' and ');

function deleteSql(table: string, shape: TableShape): string {
  return `delete from ${table} using ${recordset(shape, 'gone')}
    where ${sameKey(table, shape, 'gone')} and ${same(table, Object.keys(shape.fields), 'gone')}`;
}

function insertSql(table: string, shape: TableShape): string {
  const fields = Object.keys(shape.fields);
  return `insert into ${table} (${fields.map(column).join(', ')})
    select ${fields.map((field) => `fresh."${field}"`).join(', ')}
    from ${recordset(shape, 'fresh')}`;
}

function updateSql(table: string, shape: TableShape): string {
  const { key, fields, formerly = {} } = shape;
  const typed = (path: 'from' | 'to') =>
    `jsonb_to_record('${JSON.stringify(formerly)}'::jsonb || (element->'${path}')) as ${path}_record(${Object.entries(
      fields,
    )
      .map(([field, type]) => `"${field}" ${type}`)
      .join(', ')})`;
  const set = Object.keys(fields)
    .filter((field) => !key.includes(field))
    .map((field) => `${column(field)} = to_record."${field}"`);
  // a record that is all key (what is in a bundle) has nothing to be updated
  return `update ${table} set ${set.join(', ') || `${column(key[0]!)} = ${table}.${column(key[0]!)}`}
    from jsonb_array_elements(?::jsonb) as element, ${typed('from')}, ${typed('to')}
    where ${sameKey(table, shape, 'to_record')}
      and ${same(table, Object.keys(fields), 'from_record')}`;
}
