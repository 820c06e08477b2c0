import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
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
import { row, rows } from '../database/index.js';
import { startTimeSlice } from '../timeSlice.js';
import { renumberRow, type FileRow, type Renumbering } from './renumber.js';
import { FILE_TABLES, type FileTable, type Kind } from './tables.js';

const ROWS_AT_ONCE = 1000;
/** What people are called whose account was made for a copy: in a file they have their own name again. */
export const FROM_COPY = ' (from a copy)';

/**
 * Writes a study as a file, as it is at one moment of the database, while it is being sent. Numbers of rows begin with 1,
 * and ids are those of the study that it was copied from first: a copy of a copy is the same file.
 */
export function saveCopy(
  em: EntityManager,
  studyId: number,
  leftOut: readonly LeftOutOfCopy[] = [],
): Readable {
  const out = new PassThrough();
  const zip = new Zip((error, chunk, isLast) => {
    if (error) out.destroy(error);
    else out.write(chunk);
    if (isLast) out.end();
  });
  void em
    .fork()
    .transactional(async (tx) => writeStudy(tx, { studyId, leftOut, zip, out }), {
      isolationLevel: IsolationLevel.REPEATABLE_READ,
      readOnly: true,
    })
    .catch((error: unknown) => out.destroy(error instanceof Error ? error : new Error('copy')));
  return out;
}

interface Writing {
  studyId: number;
  leftOut: readonly LeftOutOfCopy[];
  zip: Zip;
  out: PassThrough;
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
  const origins = new Map(
    (
      await rows<{ id: string; origin: string }>(
        tx,
        'select id, origin from copied_id where study_id = :studyId',
        { studyId },
      )
    ).map(({ id, origin }) => [id, origin]),
  );
  const numbers = new Map<Kind, Map<number, number>>();
  for (const { name, of, numbers: kind } of FILE_TABLES) {
    if (!kind) continue;
    const ids = await rows<{ id: number }>(
      tx,
      `select t.id from ${name} t where ${of} order by t.id`,
      { studyId },
    );
    numbers.set(kind, new Map(ids.map(({ id }, i) => [id, i + 1])));
  }
  const accounts = new Map<number, number>();
  numbers.set('account', accounts);
  return {
    by: {
      int: (kind, value) => {
        const known = numbers.get(kind)!;
        // people are numbered as they are met; what was deleted since is 0
        if (kind === 'account' && !known.has(value)) known.set(value, known.size + 1);
        return known.get(value) ?? 0;
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
    out,
  }: Writing & { table: FileTable; by: Renumbering },
): Promise<StudyFileManifest['tables'][number]> {
  const { name, of, order, leftOut = [] } = table;
  const entry = new ZipDeflate(`${name}.jsonl`, { level: 1 });
  zip.add(entry);
  const hash = createHash('sha256');
  let [count, bytes] = [0, 0];
  const slice = startTimeSlice();
  const without = leftOut.map((column) => ` - '${column}'`).join('');
  await rows(
    tx,
    `declare copied cursor for
     select to_jsonb(t)${without} as row from ${name} t where ${of} and ${isLeftOut(name, notAsked) ? 'false' : 'true'} order by ${order}`,
    { studyId },
  );
  for (;;) {
    const page = await rows<{ row: FileRow }>(tx, `fetch ${ROWS_AT_ONCE} from copied`);
    if (page.length === 0) break;
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
    // no more is read than is taken
    if (out.writableNeedDrain) await once(out, 'drain');
  }
  await rows(tx, 'close copied');
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
