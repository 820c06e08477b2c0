import { once } from 'node:events';
import type { Writable } from 'node:stream';
import Excel from 'exceljs';
import { fitting } from './fitting.js';
import type {
  FileText,
  RespondentField,
  RespondentPages,
  RespondentValue,
} from './respondentTypes.js';
import { respondentWorkbookTexts } from '../../wording/report.js';

/** The respondent-level file as a workbook: respondents, and the data dictionary in a worksheet of its own. */
export async function writeRespondentWorkbook(
  to: Writable,
  fields: readonly RespondentField[],
  pages: RespondentPages,
  { name, description }: FileText,
): Promise<void> {
  const workbook = new Excel.stream.xlsx.WorkbookWriter({
    stream: to,
    useSharedStrings: false,
    useStyles: true,
  });
  workbook.creator = respondentWorkbookTexts.program;
  workbook.created = new Date();
  const sheet = workbook.addWorksheet(respondentWorkbookTexts.respondents, {
    views: [{ state: 'frozen', ySplit: 1 }],
  });
  sheet.addRow(fields.map((field) => field.name)).commit();
  const dates = fields.flatMap(({ type }, c) => (type === 'date' ? [c] : []));
  for await (const page of pages) {
    for (const values of page) {
      const row = sheet.addRow(values.map((value, c) => asCell(value, fields[c]!)));
      for (const c of dates) row.getCell(c + 1).numFmt = 'yyyy-mm-dd';
      row.commit();
    }
    const intake = intakeOf(sheet);
    if (intake && !intake.write(Buffer.alloc(0))) await once(intake, 'drain');
    if (to.writableNeedDrain) await once(to, 'drain');
  }
  sheet.commit();
  const dictionary = workbook.addWorksheet(respondentWorkbookTexts.dataDictionary);
  dictionary.columns = [{ width: 34 }, { width: 10 }, { width: 40 }, { width: 80 }];
  for (const line of [
    [respondentWorkbookTexts.study, name],
    ['', description],
    [],
    [
      respondentWorkbookTexts.column,
      respondentWorkbookTexts.type,
      respondentWorkbookTexts.title,
      respondentWorkbookTexts.whatHolds,
    ],
  ])
    dictionary.addRow(line).commit();
  for (const field of fields)
    dictionary.addRow([field.name, field.type, field.title, field.description]).commit();
  dictionary.commit();
  await workbook.commit();
}

/** The first day that a workbook can count from without the leap day that 1900 did not have. */
const FIRST_DAY = '1900-03-01';

/** A day as a day; texts as far as a cell holds them. */
function asCell(value: RespondentValue, { type }: RespondentField): RespondentValue | Date {
  if (typeof value !== 'string') return value;
  return type === 'date' && value >= FIRST_DAY ? new Date(`${value}T00:00:00Z`) : fitting(value);
}

/**
 * Where a worksheet's rows go into the zip. The library does not wait for it, so that rows pile up there which are
 * written faster than they are packed; null where another version of it has no such place.
 */
function intakeOf(sheet: object): Writable | null {
  const stream: unknown = Reflect.get(sheet, 'stream');
  const pipes: unknown = stream instanceof Object ? Reflect.get(stream, 'pipes') : null;
  const intake: unknown = Array.isArray(pipes) ? pipes[0] : null;
  return isWritable(intake) ? intake : null;
}

const isWritable = (thing: unknown): thing is Writable =>
  thing instanceof Object && 'write' in thing && 'once' in thing;
