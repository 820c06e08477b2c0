import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import type { ColumnSetting, ReadySheet, Sheet, SheetSettings } from '@yellow-thread/contract';
import { guessCodeColumns, matchNames, type RoleGuess } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  CodeEntity,
  copyBytes,
  QuestionEntity,
  row,
  rows,
  SheetEntity,
  StudyEntity,
  VariableEntity,
  type SheetReading,
  SheetPartEntity,
} from '../database/index.js';
import { cancelJob, newestSheetJob } from '../jobs/index.js';
import { problems } from '../wording/problems.js';
import { partWriter } from './files/index.js';
import type { SheetRows } from './sheetWork.js';

const ABANDONED_AFTER = '7 days';
/** No upload takes as long: the server ends it before. */
const CUT_OFF_AFTER = '1 hour';

/**
 * Keeps an uploaded file part by part as it comes in; nothing of the study changes yet.
 *
 * @param content must say `truncated` when it was cut off at the largest size
 * @returns the sheet's id
 */
export async function keepSheet(
  em: EntityManager,
  upload: {
    studyId: number;
    accountId: number;
    fileName: string;
    content: Readable & { truncated?: boolean };
    tooLarge: () => Error;
  },
): Promise<number> {
  const id = await em.insert(SheetEntity, {
    studyId: upload.studyId,
    uploadedBy: upload.accountId,
    fileName: upload.fileName,
    checked: null,
  });
  try {
    const checksum = createHash('sha256');
    let position = 0;
    const parts = partWriter((part) =>
      putPart(em, { sheetId: id, content: 'file', position: position++, bytes: part }),
    );
    for await (const bytes of upload.content as AsyncIterable<Buffer>) {
      checksum.update(bytes);
      await parts.add(bytes);
    }
    if (upload.content.truncated) throw upload.tooLarge();
    const size = await parts.end();
    await em.nativeUpdate(SheetEntity, { id }, { size, checksum: checksum.digest('hex') });
    return id;
  } catch (error) {
    await em.nativeDelete(SheetEntity, { id });
    throw upload.content.errored ? problems.uploadCutOff() : error;
  }
}

/** Deletes sheets that nobody imported, and uploads that a killed server never finished. */
export const dropAbandoned = (em: EntityManager): Promise<unknown> =>
  rows(
    em,
    `delete from sheet where uploaded_at < now() - interval '${ABANDONED_AFTER}'
       or (checksum is null and uploaded_at < now() - interval '${CUT_OFF_AFTER}')`,
  );

export const putPart = async (
  em: EntityManager,
  {
    sheetId,
    content,
    position,
    bytes,
  }: { sheetId: number; content: 'file' | 'rows'; position: number; bytes: Uint8Array },
): Promise<void> => {
  await em.insert(SheetPartEntity, {
    sheetId,
    content,
    position,
    bytes: Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength),
  });
};

/**
 * Reads parts of a kept file, one query each: on a connection of its own, since that of a transaction which
 * writes what was read is busy with it.
 */
export function partsOf(em: EntityManager, sheetId: number, content: 'file' | 'rows') {
  return async (position: number): Promise<Uint8Array> => {
    const bytes = await copyBytes(
      em,
      `select bytes from sheet_part where sheet_id = ${sheetId} and content = '${content}' and position = ${position}`,
    );
    if (!bytes) throw new Error('A part of the file is missing.');
    return bytes;
  };
}

/** Puts a sheet away, and stops the reading of it. */
export async function leaveSheet(em: EntityManager, studyId: number, id: number): Promise<void> {
  await findSheet(em, studyId, id);
  const reading = await newestSheetJob(em, id);
  if (reading) await cancelJob(em, studyId, reading.id);
  await em.nativeDelete(SheetEntity, { id });
}

/** Sheets that were uploaded and neither imported nor left yet, newest first. */
export const listSheets = async (em: EntityManager, studyId: number) => {
  const sheets = await em.find(
    SheetEntity,
    { studyId, checksum: { $ne: null } },
    { orderBy: { id: 'desc' } },
  );
  return sheets.map(({ id, fileName, size, uploadedAt }) => ({
    id,
    fileName,
    size,
    uploadedAt: uploadedAt.toISOString(),
  }));
};

export async function findSheet(em: EntityManager, studyId: number, id: number) {
  const sheet = await em.findOne(SheetEntity, { id, studyId, checksum: { $ne: null } });
  if (!sheet) throw problems.notFound('sheet');
  return sheet;
}

export async function describeSheet(
  em: EntityManager,
  studyId: number,
  id: number,
): Promise<Sheet> {
  // the job first: one that has ended by now has written what it found by now
  const reading = await newestSheetJob(em, id);
  const sheet = await findSheet(em, studyId, id);
  const isRead = !reading || !['waiting', 'running'].includes(reading.state);
  return {
    id,
    fileName: sheet.fileName,
    size: sheet.size,
    uploadedAt: sheet.uploadedAt.toISOString(),
    reading,
    ready:
      isRead && sheet.reading && sheet.settings ? readyOf(sheet.reading, sheet.settings) : null,
  };
}

const readyOf = (
  { file, rows: count, columns, preview }: SheetReading,
  settings: SheetSettings,
): ReadySheet => ({ file, rows: count, columns, preview, settings });

/** A sheet that was read through. @throws Problem sheet_not_ready */
export async function readySheet(em: EntityManager, studyId: number, id: number) {
  const sheet = await findSheet(em, studyId, id);
  if (!sheet.reading) throw problems.sheetNotReady();
  const { file, columns, rowsSize } = sheet.reading;
  const content = rowsSize === null ? ('file' as const) : ('rows' as const);
  const shape: SheetRows = {
    fileName: sheet.fileName,
    size: rowsSize ?? sheet.size,
    file,
    columns: columns.map(({ head, code }) => ({ name: head, code })),
  };
  return { sheet, shape, part: partsOf(em, id, content) };
}

/** What is proposed for a sheet: the guessed roles, tied to what the study already has. */
export async function proposeSettings(
  em: EntityManager,
  studyId: number,
  {
    columns: guesses,
    ids,
  }: { columns: readonly (RoleGuess & { head: string })[]; ids: readonly string[] },
): Promise<{ settings: SheetSettings; reasons: string[] }> {
  const study = await em.findOneOrFail(StudyEntity, studyId);
  const variables = await em.find(VariableEntity, { studyId });
  const questions = await em.find(QuestionEntity, { studyId });
  const codes = await em.find(CodeEntity, { studyId, archived: false });
  const wordings = questions.map((question) => question.wording);
  const byName = matchNames(guesses, {
    variables: variables.map(({ name, kind }) => ({ name, kind })),
    questions: wordings,
    before: await settingsBefore(em, studyId),
  });
  const matched = guessCodeColumns(
    byName.map((guess, c) => ({ ...guess, head: guesses[c]!.head })),
    {
      codes: codes.map(({ name }) => name),
      variables: variables.map(({ name }) => name),
      questions: wordings,
    },
  );
  return {
    reasons: matched.map((guess) => guess.reason),
    settings: {
      as: await guessRows(em, studyId, { ids, columns: matched, wordings }),
      matches: [],
      columns: matched.map(({ role, name, of, separator, writing }) => ({
        role,
        name,
        of,
        separator,
        writing,
      })),
      duplicates: 'stop',
      keepSpellings: [],
      noAnswers: study.noAnswers,
      answersDespite: questions.flatMap(({ wording, answersDespite }) =>
        answersDespite.map((text) => ({ question: wording, text })),
      ),
      asides: study.asides,
      wave: '',
    },
  };
}

/** Share of ids that must be in the study for the rows to be people who are in it already. */
const MOSTLY = 0.5;

/** What the rows of a sheet seem to be, by how many of its ids the study has. */
async function guessRows(
  em: EntityManager,
  studyId: number,
  sheet: { ids: readonly string[]; columns: readonly ColumnSetting[]; wordings: readonly string[] },
): Promise<SheetSettings['as']> {
  const { known, all } = await row<{ known: number; all: number }>(
    em,
    `select count(*)::int as "all", (count(*) filter (where external_id = any(:ids::text[])))::int as known
     from respondent where study_id = :studyId`,
    { ids: sheet.ids, studyId },
  );
  const questions = sheet.columns.filter(({ role }) => role === 'question');
  const isAboutKnown = sheet.ids.length > 0 && known > MOSTLY * sheet.ids.length;
  if (all === 0) return 'respondents';
  if (questions.length === 0) return 'details';
  if (!isAboutKnown) return 'respondents';
  return questions.some(({ name }) => sheet.wordings.includes(name)) ? 'corrections' : 'answers';
}

/** By the head of a column: what it was last imported as, and with which file. */
async function settingsBefore(em: EntityManager, studyId: number) {
  const columns = await rows<{ head: string; setting: ColumnSetting; fileName: string }>(
    em,
    `select distinct on (1) r.role->>'column' as head, c.setting, i.file_name as "fileName"
     from import i
     cross join jsonb_array_elements(i.roles) with ordinality r (role, place)
     join jsonb_array_elements(i.settings->'columns') with ordinality c (setting, place)
       on c.place = r.place
     where i.study_id = :studyId and i.undone_at is null order by 1, i.id desc`,
    { studyId },
  );
  return new Map(columns.map(({ head, ...before }) => [head, before]));
}
