import { createHash } from 'node:crypto';
import { once } from 'node:events';
import type { Writable } from 'node:stream';
import {
  STUDY_FILE_FORM,
  STUDY_FILE_VERSION,
  type LeftOutOfCopy,
  type StudyFileManifest,
} from '@yellow-thread/contract';
import { maskDetails } from '@yellow-thread/core/text';
import { IsolationLevel } from '@mikro-orm/core';
import type { EntityManager } from '@mikro-orm/postgresql';
import { strToU8, Zip, ZipDeflate } from 'fflate';
import { indexIds, row, rows, unpackInts } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { eachPage } from './eachPage.js';
import { readOrigins } from './readOrigins.js';
import { renumberRow, type FileRow, type Renumbering } from './renumber.js';
import { FILE_TABLES, type FileTable, type Kind } from './tables.js';

/** What people are called whose account was made for a copy: in a file they have their own name again. */
export const FROM_COPY = ' (from a copy)';

interface Copying {
  studyId: number;
  leftOut: readonly LeftOutOfCopy[];
  to: Writable;
  /** Whoever takes the file has gone. */
  gone: AbortSignal;
}

/**
 * Writes a study as a file, as it is at one moment of the database, no faster than it is taken. Numbers of rows begin with
 * 1, and ids are those of the study that it was copied from first: a copy of a copy is the same file.
 */
export async function saveCopy(em: EntityManager, copying: Copying): Promise<void> {
  const { to } = copying;
  const zip = new Zip((error, chunk) => {
    if (error) to.destroy(error);
    else to.write(chunk);
  });
  await em.transactional((tx) => writeStudy(tx, { ...copying, zip }), {
    isolationLevel: IsolationLevel.REPEATABLE_READ,
    readOnly: true,
  });
  to.end();
}

interface Writing extends Copying {
  zip: Zip;
}

async function writeStudy(tx: EntityManager, writing: Writing): Promise<void> {
  const { studyId, leftOut, zip } = writing;
  const { name } = await row<{ name: string }>(tx, 'select name from study where id = :studyId', {
    studyId,
  });
  const { by, accounts } = await numberRows(tx, studyId);
  const tables: StudyFileManifest['tables'] = [];
  for (const table of FILE_TABLES) tables.push(await writeTable(tx, { ...writing, table, by }));
  const manifest: StudyFileManifest = {
    ...{ form: STUDY_FILE_FORM, version: STUDY_FILE_VERSION, savedAt: new Date().toISOString() },
    leftOut: [...leftOut],
    ...{ name, people: await namesOf(tx, accounts()), tables },
  };
  const entry = new ZipDeflate('manifest.json', { level: 1 });
  zip.add(entry);
  entry.push(strToU8(JSON.stringify(manifest, null, 2)), true);
  zip.end();
}

/** Numbers from 1 in the order of ids, and each id as it was first. */
async function numberRows(
  tx: EntityManager,
  studyId: number,
): Promise<{ by: Renumbering; accounts: () => number[] }> {
  const origins = await readOrigins(tx, studyId);
  const placeOf = new Map<Kind, (id: number) => number>();
  for (const { name, of, numbers: kind } of FILE_TABLES) {
    if (!kind) continue;
    const { ids } = await row<{ ids: Buffer | null }>(
      tx,
      `select string_agg(int4send(t.id), '' order by t.id) as ids from ${name} t where ${of}`,
      { studyId },
    );
    placeOf.set(kind, indexIds(unpackInts(ids)));
  }
  const accounts = new Map<number, number>();
  return {
    by: {
      int: (kind, value) => {
        // what was deleted since is 0
        if (kind !== 'account') return placeOf.get(kind)!(value) + 1;
        // people are numbered as they are met
        if (!accounts.has(value)) accounts.set(value, accounts.size + 1);
        return accounts.get(value)!;
      },
      uuid: (id) => origins.get(id) ?? id,
    },
    accounts: () => [...accounts.keys()],
  };
}

async function writeTable(
  tx: EntityManager,
  {
    studyId,
    leftOut: notAsked,
    table,
    by,
    zip,
    to,
    gone,
  }: Writing & { table: FileTable; by: Renumbering },
): Promise<StudyFileManifest['tables'][number]> {
  const { name, of, order, leftOut = [] } = table;
  const entry = new ZipDeflate(`${name}.jsonl`, { level: 1 });
  zip.add(entry);
  const hash = createHash('sha256');
  let [count, bytes] = [0, 0];
  const slice = startTimeSlice();
  const without = leftOut.map((column) => ` - '${column}'`).join('');
  await eachPage<{ row: FileRow }>(
    tx,
    `select to_jsonb(t)${without} as row from ${name} t
     where ${of} and ${isLeftOut(name, notAsked) ? 'false' : 'true'} order by ${order}`,
    { studyId },
    async (page) => {
      for (const { row: one } of page) {
        const line = strToU8(
          `${JSON.stringify(leaveOut(name, renumberRow(table, one, by), notAsked))}\n`,
        );
        hash.update(line);
        bytes += line.length;
        count += 1;
        entry.push(line);
        if (slice.isOver()) await slice.next();
      }
      gone.throwIfAborted();
      // no more is read than is taken
      if (to.writableNeedDrain) await once(to, 'drain', { signal: gone });
    },
  );
  entry.push(new Uint8Array(0), true);
  return { name, rows: count, bytes, sha256: hash.digest('hex') };
}

/** Tables that have no rows in a copy without something. */
const isLeftOut = (table: string, leftOut: readonly LeftOutOfCopy[]): boolean =>
  (table === 'change' && leftOut.includes('history')) ||
  (table === 'category' && leftOut.includes('background'));

/** A row without what is left out of it. */
function leaveOut(table: string, row: FileRow, leftOut: readonly LeftOutOfCopy[]): FileRow {
  if (leftOut.includes('background') && row['background']) return { ...row, background: {} };
  if (leftOut.includes('names_in_notes') && table === 'note' && typeof row['text'] === 'string')
    return { ...row, text: maskDetails(row['text']) };
  return row;
}

async function namesOf(tx: EntityManager, accounts: readonly number[]): Promise<string[]> {
  const found = await rows<{ id: number; name: string }>(
    tx,
    'select id, name from account where id = any(:accounts::int[])',
    { accounts },
  );
  const nameOf = new Map(found.map(({ id, name }) => [id, name]));
  return accounts.map((id) => (nameOf.get(id) ?? '?').replace(FROM_COPY, ''));
}
