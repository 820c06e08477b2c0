import Excel from 'exceljs';
import { Readable } from 'node:stream';
import { z } from 'zod';
import { problems } from '../../problems.js';
import type { RowBatch } from './text.js';
import type { Zip } from './zip.js';

// The library's own streaming reader takes a zip's entries in the order in which they lie there: styles
// after the worksheet cost it the dates, shared strings after it a temporary file. Its parts are therefore
// called one by one, in the order that they need; the version is pinned.
declare module 'exceljs' {
  // eslint-disable-next-line @typescript-eslint/no-namespace -- the library's own types are in one
  namespace stream.xlsx {
    interface WorkbookReader {
      _parseRels(entry: Readable): Promise<void>;
      _parseWorkbook(entry: Readable): Promise<void>;
      _parseStyles(entry: Readable): Promise<void>;
      _parseSharedStrings(entry: Readable): AsyncGenerator<unknown>;
      _parseWorksheet(
        entry: AsyncIterable<unknown>,
        sheetNo: string,
      ): Iterable<{ value: stream.xlsx.WorksheetReader }>;
      sharedStrings?: unknown[];
      workbookRels: { Id: string; Target: string }[];
    }
  }
}

const BATCH = 500;

/** What the library keeps of the workbook's list of worksheets, which its types do not tell. */
const sheetList = z.object({
  sheets: z.array(z.object({ name: z.string(), rId: z.string(), state: z.string().optional() })),
});

/** A workbook (Office Open XML, ISO/IEC 29500) opened for reading. */
export async function openWorkbook(zip: Zip, fileName: string) {
  const reader = new Excel.stream.xlsx.WorkbookReader(Readable.from([]), {
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    worksheets: 'emit',
    entries: 'ignore',
  });
  await reader._parseRels(await zip.open('xl/_rels/workbook.xml.rels'));
  await reader._parseWorkbook(await zip.open('xl/workbook.xml'));
  const pathOf = (id: string) => {
    const target = reader.workbookRels.find((rel) => rel.Id === id)?.Target ?? '';
    return target.startsWith('/') ? target.slice(1) : `xl/${target}`;
  };
  const sheets = sheetList
    .parse(reader.model)
    .sheets.map(({ name, rId, state }) => ({ name, path: pathOf(rId), hidden: state === 'hidden' }))
    .filter(({ path }) => /worksheets\//u.test(path) && zip.names.includes(path));
  if (sheets.length === 0)
    throw problems.unreadableSheet(`“${fileName}” holds no worksheet: there is nothing to read.`);

  let prepared = false;
  const prepare = async () => {
    if (prepared) return;
    prepared = true;
    reader.sharedStrings = [];
    const strings = zip.names.find((name) => /^xl\/sharedStrings\.xml$/iu.test(name));
    if (strings) {
      const parsing = reader._parseSharedStrings(await zip.open(strings));
      while (!(await parsing.next()).done);
    }
    if (zip.names.includes('xl/styles.xml'))
      await reader._parseStyles(await zip.open('xl/styles.xml'));
  };

  return {
    /** Names of the worksheets, those that are shown before hidden ones. */
    worksheets: sheets
      .toSorted((x, y) => Number(x.hidden) - Number(y.hidden))
      .map((sheet) => sheet.name),
    /** The rows of a worksheet as a person sees them: results of formulas, dates, text. */
    async *rows(worksheet: string): AsyncGenerator<RowBatch> {
      await prepare();
      const sheet = sheets.find((one) => one.name === worksheet);
      if (!sheet) throw problems.unreadableSheet(`“${fileName}” has no worksheet “${worksheet}”.`);
      const entry = await zip.open(sheet.path);
      let batch: RowBatch = { row: 1, rows: [] };
      let next = 1;
      for (const { value: rows } of reader._parseWorksheet(entry, '1'))
        for await (const row of rows) {
          // rows that the file leaves out are blank
          for (; next < row.number; next++) batch.rows.push([]);
          next += 1;
          batch.rows.push(cellsOf(row.values));
          if (batch.rows.length >= BATCH) {
            yield batch;
            batch = { row: next, rows: [] };
          }
        }
      if (batch.rows.length > 0) yield batch;
    },
  };
}

function cellsOf(values: Excel.Row['values']): string[] {
  const cells: string[] = [];
  if (!Array.isArray(values)) return cells;
  // the library counts columns from 1 and leaves holes
  for (let c = 1; c < values.length; c++) cells.push(cellText(values[c]));
  return cells;
}

function cellText(value: Excel.CellValue | undefined): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date)
    return Number.isNaN(value.getTime())
      ? ''
      : value.toISOString().replace(/(?:T00:00:00)?\.000Z$/u, '');
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((run) => run.text).join('');
  if ('result' in value) return cellText(value.result);
  if ('text' in value) return cellText(value.text);
  return '';
}
