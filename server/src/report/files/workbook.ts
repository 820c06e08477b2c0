import type { Writable } from 'node:stream';
import Excel from 'exceljs';
import { startTimeSlice } from '../../timeSlice.js';
import { fitting } from './fitting.js';
import type { Format, Grid } from './grid.js';
import { workbookTexts } from '../../wording/report.js';

const numberFormats: Record<Format, string> = {
  text: '@',
  count: '#,##0',
  decimal: '0.000',
  percent: '0.0%',
  p: '0.0000',
};
const NAME_LENGTH = 31;

/** An answer as a row of a worksheet. */
export interface AnswerRow {
  respondent: string;
  question: string;
  answer: string;
  settled: string;
  code: string;
  theme: string;
  passage: string;
  origin: string;
  coder: string;
}
const answerHeads: { key: keyof AnswerRow; head: string; width: number }[] = [
  { key: 'respondent', head: workbookTexts.respondent, width: 16 },
  { key: 'question', head: workbookTexts.question, width: 24 },
  { key: 'answer', head: workbookTexts.answer, width: 70 },
  { key: 'settled', head: workbookTexts.settled, width: 10 },
  { key: 'code', head: workbookTexts.code, width: 26 },
  { key: 'theme', head: workbookTexts.theme, width: 22 },
  { key: 'passage', head: workbookTexts.passage, width: 40 },
  { key: 'origin', head: workbookTexts.howCoded, width: 14 },
  { key: 'coder', head: workbookTexts.coder, width: 16 },
];
/** The most rows that a worksheet may have, less its head. */
const SHEET_ROWS = 1_048_575;

/**
 * Writes tables and answers as a workbook, row by row: numbers as numbers, texts as texts (never as formulas), one
 * worksheet a table, answers in a worksheet of their own, or in several when they are more than one can hold.
 */
export async function writeWorkbook(
  to: Writable,
  grids: readonly Grid[],
  answers: AsyncIterable<AnswerRow[]> | Iterable<AnswerRow[]> = [],
): Promise<void> {
  const workbook = new Excel.stream.xlsx.WorkbookWriter({
    stream: to,
    useSharedStrings: false,
    useStyles: true,
  });
  workbook.creator = workbookTexts.program;
  workbook.created = new Date();
  const names = new Set<string>();
  for (const grid of grids) writeGrid(workbook, grid, sheetName(grid.name, names));
  const slice = startTimeSlice();
  let sheet: Excel.Worksheet | null = null;
  let written = 0;
  for await (const some of answers)
    for (const answer of some) {
      if (slice.isOver()) await slice.next();
      if (!sheet || written === SHEET_ROWS) {
        sheet?.commit();
        sheet = workbook.addWorksheet(sheetName(workbookTexts.answers, names), {
          views: [{ state: 'frozen', ySplit: 1 }],
        });
        sheet.columns = answerHeads.map(({ width }) => ({ width }));
        const head = sheet.addRow(answerHeads.map(({ head: name }) => name));
        head.font = { bold: true };
        head.commit();
        written = 0;
      }
      sheet.addRow(answerHeads.map(({ key }) => fitting(answer[key]))).commit();
      written += 1;
    }
  sheet?.commit();
  await workbook.commit();
}

function writeGrid(workbook: Excel.stream.xlsx.WorkbookWriter, grid: Grid, name: string): void {
  const { facts, columns, rows, heads } = grid;
  const sheet = workbook.addWorksheet(name, {
    views: [{ state: 'frozen', xSplit: 3, ySplit: facts.length + 2 }],
  });
  sheet.columns = columns.map((_, c) => ({ width: c < 3 ? 22 : 13 }));
  for (const fact of facts) sheet.addRow(fact).commit();
  sheet.addRow([]).commit();
  const head = sheet.addRow(columns.map((column) => column.head));
  head.font = { bold: true };
  head.alignment = { wrapText: true, vertical: 'bottom' };
  head.commit();
  rows.forEach((values, r) => {
    const row = sheet.addRow(values);
    if (heads[r]) row.font = { bold: true };
    columns.forEach(({ format }, c) => {
      row.getCell(c + 1).numFmt = numberFormats[format];
    });
    row.commit();
  });
  sheet.commit();
}

/** A name that a worksheet may have and that no other has. */
function sheetName(wanted: string, taken: Set<string>): string {
  const clean =
    wanted
      .replaceAll(/[[\]:*?/\\]/gu, ' ')
      .replaceAll(/^'+|'+$/gu, '')
      .trim() || workbookTexts.table;
  for (let i = 1; ; i++) {
    const end = i === 1 ? '' : ` ${i}`;
    const name = clean.slice(0, NAME_LENGTH - end.length) + end;
    if (taken.has(name.toLowerCase())) continue;
    taken.add(name.toLowerCase());
    return name;
  }
}
