import { createHash, randomUUID } from 'node:crypto';
import { createInterface } from 'node:readline';
import {
  codeSchema,
  nameSchema,
  proseSchema,
  ruleSchema,
  STUDY_FILE_VERSION,
  studyFileManifest,
  themeSchema,
  type StudyFileManifest,
} from '@yellow-thread/contract';
import { INKS, STITCHES } from '@yellow-thread/core/codebook';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import { isConstraintError, row, rows, unpackInts } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { studyFileTexts as texts } from '../wording/studyFile.js';
import { Problem, problems } from '../wording/problems.js';
import type { Zip } from '../zip.js';
import { renumberRow, type FileRow, type Renumbering } from './renumber.js';
import { FROM_COPY } from './saveCopy.js';
import { FILE_TABLES, tablesOfVersion, type FileTable, type Kind } from './tables.js';

/** Longer lines are made to fill the memory. */
const LONGEST_LINE = 32 * 1024 * 1024;
const ROWS_AT_ONCE = 500;
const IDS_AT_ONCE = 5000;

/** What records must be beside what the database checks: they are drawn and computed with. */
const RECORDS: Readonly<Record<string, z.ZodType>> = {
  study: z.object({ name: nameSchema, purpose: proseSchema }),
  theme: themeSchema.pick({ name: true }).extend({ ink: z.enum(INKS), stitch: z.enum(STITCHES) }),
  code: codeSchema.pick({ name: true, definition: true, include: true, exclude: true }),
  saved_group: z.object({ name: nameSchema, rule: ruleSchema }),
};

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
  const manifest = await readManifest(zip);
  await checkTables(zip, manifest);
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

async function readManifest(zip: Zip): Promise<StudyFileManifest> {
  if (!zip.names.includes('manifest.json')) throw problems.badStudyFile(texts.noStudy);
  const content = await zip.text('manifest.json');
  const read = parsed(content);
  const version: unknown = read && Reflect.get(read, 'version');
  if (typeof version === 'number' && version > STUDY_FILE_VERSION)
    throw problems.newerStudyFile(version);
  const manifest = studyFileManifest.safeParse(read);
  if (!manifest.success) throw problems.badStudyFile(texts.noStudy);
  const named = manifest.data.tables.map(({ name }) => name);
  if (
    JSON.stringify(named) !==
    JSON.stringify(tablesOfVersion(manifest.data.version).map(({ name }) => name))
  )
    throw problems.badStudyFile(texts.otherTables);
  return manifest.data;
}

function parsed(line: string): FileRow | null {
  try {
    const value: unknown = JSON.parse(line);
    return typeof value === 'object' && value !== null && !Array.isArray(value)
      ? (value as FileRow)
      : null;
  } catch {
    return null;
  }
}

/** Holds every table to its checksum, its count and what its records must be. */
async function checkTables(zip: Zip, manifest: StudyFileManifest): Promise<void> {
  for (const { name, rows: count, bytes, sha256 } of manifest.tables) {
    const hash = createHash('sha256');
    let [lines, size] = [0, 0];
    const schema = RECORDS[name];
    for await (const line of linesOf(zip, name)) {
      hash.update(`${line}\n`);
      lines += 1;
      size += Buffer.byteLength(line) + 1;
      if (!isRecord(line, schema)) throw problems.badStudyFile(texts.badRow(name, lines));
    }
    if (lines !== count || size !== bytes || hash.digest('hex') !== sha256)
      throw problems.badStudyFile(texts.changed(name));
    if (name === 'study' && lines !== 1) throw problems.badStudyFile(texts.noStudy);
  }
}

function isRecord(line: string, schema: z.ZodType | undefined): boolean {
  try {
    const record = parsed(line);
    return record !== null && (schema?.safeParse(record).success ?? true);
  } catch {
    // nested deeper than can be read
    return false;
  }
}

async function* linesOf(zip: Zip, name: string): AsyncGenerator<string> {
  const input = await zip.open(`${name}.jsonl`);
  const slice = startTimeSlice();
  for await (const line of createInterface({ input, crlfDelay: Infinity })) {
    if (line.length > LONGEST_LINE) throw problems.badStudyFile(texts.badRow(name, 0));
    yield line;
    if (slice.isOver()) await slice.next();
  }
}

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
    const { id } = await row<{ id: number }>(
      tx,
      `with made as (
         insert into account (name, password_hash) values (:name, '') on conflict do nothing returning id)
       select id from made union all select id from account where name = :name limit 1`,
      { name: `${name}${FROM_COPY}` },
    );
    accounts.push(id);
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
