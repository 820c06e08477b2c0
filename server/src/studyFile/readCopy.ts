import { createHash } from 'node:crypto';
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
import { z } from 'zod';
import { startTimeSlice } from '../timeSlice.js';
import { problems } from '../wording/problems.js';
import { studyFileTexts as texts } from '../wording/studyFile.js';
import type { Zip } from '../zip.js';
import type { FileRow } from './renumber.js';
import { tablesOfVersion } from './tables.js';

/** Longer lines are made to fill the memory. */
const LONGEST_LINE = 32 * 1024 * 1024;

/** What records must be beside what the database checks: they are drawn and computed with. */
const RECORDS: Readonly<Record<string, z.ZodType>> = {
  study: z.object({ name: nameSchema, purpose: proseSchema }),
  theme: themeSchema.pick({ name: true }).extend({ ink: z.enum(INKS), stitch: z.enum(STITCHES) }),
  code: codeSchema.pick({ name: true, definition: true, include: true, exclude: true }),
  saved_group: z.object({ name: nameSchema, rule: ruleSchema }),
};

/**
 * Reads what a study file says of itself, and holds every table to its checksum, its count and what its records must be.
 *
 * @throws Problem bad_study_file, newer_study_file
 */
export async function readChecked(zip: Zip): Promise<StudyFileManifest> {
  const manifest = await readManifest(zip);
  await checkTables(zip, manifest);
  return manifest;
}

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

/** A line as a row; null where it is none. */
export function parsed(line: string): FileRow | null {
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

/** The lines of a table, one after the other. @throws Problem bad_study_file */
export async function* linesOf(zip: Zip, name: string): AsyncGenerator<string> {
  const input = await zip.open(`${name}.jsonl`);
  const slice = startTimeSlice();
  for await (const line of createInterface({ input, crlfDelay: Infinity })) {
    if (line.length > LONGEST_LINE) throw problems.badStudyFile(texts.badRow(name, 0));
    yield line;
    if (slice.isOver()) await slice.next();
  }
}
