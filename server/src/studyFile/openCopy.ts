import { randomUUID } from 'node:crypto';
import type { StudyFileManifest } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { isConstraintError, row, rows, unpackInts } from '../database/index.js';
import { studyFileTexts as texts } from '../wording/studyFile.js';
import { Problem, problems } from '../wording/problems.js';
import type { Zip } from '../zip.js';
import { accountFor } from './accounts.js';
import { linesOf, parsed, readChecked } from './readCopy.js';
import { renumberRow, type FileRow, type Renumbering } from './renumber.js';
import { FILE_TABLES, tablesOfVersion, type FileTable, type Kind } from './tables.js';

const ROWS_AT_ONCE = 500;
const IDS_AT_ONCE = 5000;

/**
 * Opens a copy as a new study of whoever opens it. All of it is checked before anything is written, and it is written in
 * one transaction.
 *
 * @returns the id of the study
 * @throws Problem bad_study_file, newer_study_file
 */
export async function openCopy(
  em: EntityManager,
  zip: Zip,
  opener: { accountId: number; name: string },
): Promise<number> {
  const manifest = await readChecked(zip);
  try {
    return await em.transactional((tx) => writeTables(tx, zip, manifest, opener));
  } catch (error) {
    if (error instanceof Problem) throw error;
    // a reference to nothing, a value of another kind
    if (isConstraintError(error) || isOfData(error)) throw problems.badStudyFile(texts.doesNotFit);
    throw error;
  }
}

/** Class 22 of PostgreSQL's errors: data that a column does not take. */
const isOfData = (error: unknown): boolean =>
  error instanceof Error && /^22/u.test(String(Reflect.get(error, 'code') ?? ''));

async function writeTables(
  tx: EntityManager,
  zip: Zip,
  { version, tables, people }: StudyFileManifest,
  opener: { accountId: number; name: string },
): Promise<number> {
  const { by, copied } = await newNumbers(tx, tables, await accountsFor(tx, people, opener));
  // what came with a later version is empty, and columns that did are as they begin
  for (const table of tablesOfVersion(version)) {
    let page: FileRow[] = [];
    const write = async () => {
      if (page.length > 0) await insertRows(tx, table, page);
      page = [];
    };
    for await (const line of linesOf(zip, table.name)) {
      page.push(renumbered(table, line, by));
      if (page.length === ROWS_AT_ONCE) await write();
    }
    await write();
  }
  const studyId = by.int('study', 1);
  await rows(
    tx,
    `insert into membership (study_id, account_id, role) values (:studyId, :accountId, 'owner')`,
    {
      studyId,
      accountId: opener.accountId,
    },
  );
  const pairs = [...copied];
  for (let from = 0; from < pairs.length; from += IDS_AT_ONCE) {
    const page = pairs.slice(from, from + IDS_AT_ONCE);
    await rows(
      tx,
      `insert into copied_id (study_id, id, origin)
       select :studyId, * from unnest(:ids::uuid[], :origins::uuid[])`,
      { studyId, ids: page.map(([, id]) => id), origins: page.map(([origin]) => origin) },
    );
  }
  return studyId;
}

/** @throws Problem bad_study_file for a row that is packed or nested as none of ours is */
function renumbered(table: FileTable, line: string, by: Renumbering): FileRow {
  try {
    return renumberRow(table, parsed(line)!, by);
  } catch (error) {
    throw error instanceof Problem ? error : problems.badStudyFile(texts.doesNotFit);
  }
}

/** New numbers for all rows, and a new id for each id: the study that was copied may be here, too. */
async function newNumbers(
  tx: EntityManager,
  tables: StudyFileManifest['tables'],
  accounts: readonly number[],
): Promise<{ by: Renumbering; copied: Map<string, string> }> {
  const numbers = new Map<Kind, Int32Array>([['account', Int32Array.from(accounts)]]);
  for (const { name, numbers: kind } of FILE_TABLES) {
    if (!kind) continue;
    const count = tables.find((table) => table.name === name)?.rows ?? 0;
    const { ids } = await row<{ ids: Buffer | null }>(
      tx,
      `select string_agg(int4send(nextval(pg_get_serial_sequence('${name}', 'id'))::int), '') as ids
       from generate_series(1, :count)`,
      { count },
    );
    numbers.set(kind, unpackInts(ids));
  }
  const copied = new Map<string, string>();
  return {
    by: {
      int: (kind, value) => {
        if (value === 0) return 0;
        const id = numbers.get(kind)![value - 1];
        if (id === undefined) throw problems.badStudyFile(texts.doesNotFit);
        return id;
      },
      uuid: (origin) => {
        const id = copied.get(origin) ?? randomUUID();
        copied.set(origin, id);
        return id;
      },
    },
    copied,
  };
}

/**
 * Accounts for the people of a file: whoever opens it stands for themselves, the others are names that nobody can sign in
 * with.
 */
async function accountsFor(
  tx: EntityManager,
  people: readonly string[],
  opener: { accountId: number; name: string },
): Promise<number[]> {
  const accounts: number[] = [];
  for (const name of people) {
    if (name === opener.name) {
      accounts.push(opener.accountId);
      continue;
    }
    accounts.push(await accountFor(tx, name));
  }
  return accounts;
}

async function insertRows(
  tx: EntityManager,
  { name, leftOut = [] }: FileTable,
  page: readonly FileRow[],
): Promise<void> {
  const columns = Object.keys(page[0]!);
  // they are written into a statement
  if (columns.some((column) => !/^[a-z_]+$/u.test(column) || leftOut.includes(column)))
    throw problems.badStudyFile(texts.badRow(name, 1));
  const list = columns.map((column) => `"${column}"`).join(', ');
  await rows(
    tx,
    `insert into ${name} (${list}) select ${list} from jsonb_populate_recordset(null::${name}, :page::jsonb)`,
    { page: JSON.stringify(page) },
  );
}
