import type { Table } from '@yellow-thread/core/sheet';
import { parse } from 'csv-parse/sync';
import Excel from 'exceljs';
import iconv from 'iconv-lite';
import { Problem, problems } from '../problems.js';

const zipMark = [0x50, 0x4b, 0x03, 0x04];
const oleMark = [0xd0, 0xcf, 0x11, 0xe0];

/**
 * Reads a CSV or XLSX file whole. Runs on a worker thread.
 *
 * @throws Problem unreadable_sheet, in one plain sentence
 */
export async function readSheet(fileName: string, content: Uint8Array): Promise<Table> {
  try {
    const startsWith = (mark: number[]) => mark.every((byte, i) => content[i] === byte);
    if (content.length === 0) throw problems.unreadableSheet(`“${fileName}” is empty.`);
    if (startsWith(oleMark))
      throw problems.unreadableSheet(
        `“${fileName}” is protected by a password or in the old .xls format: save it as .xlsx without a password, or as CSV.`,
      );
    const lines = startsWith(zipMark) ? await readWorkbook(content) : readText(fileName, content);
    return asTable(fileName, lines);
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw problems.unreadableSheet(
      `“${fileName}” could not be read as CSV or XLSX: it may be damaged. Open it where it comes from and save it anew.`,
    );
  }
}

async function readWorkbook(content: Uint8Array): Promise<string[][]> {
  const workbook = new Excel.Workbook();
  const bytes = content.buffer.slice(content.byteOffset, content.byteOffset + content.byteLength);
  await workbook.xlsx.load(bytes as ArrayBuffer);
  const worksheet = workbook.worksheets.find((sheet) => sheet.actualRowCount > 0);
  const lines: string[][] = [];
  worksheet?.eachRow((row) => {
    const cells: string[] = [];
    for (let c = 1; c <= worksheet.columnCount; c++) cells.push(cellText(row.getCell(c).value));
    lines.push(cells);
  });
  return lines;
}

function cellText(value: Excel.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().replace(/T00:00:00\.000Z$/u, '');
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((run) => run.text).join('');
  if ('result' in value) return cellText(value.result);
  if ('text' in value) return cellText(value.text);
  return '';
}

function readText(fileName: string, content: Uint8Array): string[][] {
  if (content.includes(0) && !looksLikeUtf16(content))
    throw problems.unreadableSheet(
      `“${fileName}” is neither a text file nor an XLSX workbook: choose the file that your survey service exported.`,
    );
  const text = decode(content);
  return parse(text, {
    delimiter: guessSeparator(text),
    relaxColumnCount: true,
    relaxQuotes: true,
    skipEmptyLines: true,
    bom: true,
  });
}

const looksLikeUtf16 = ([first, second]: Uint8Array) =>
  (first === 0xff && second === 0xfe) || (first === 0xfe && second === 0xff);

/** UTF-8 where it is valid, UTF-16 where marked so, else Windows-1252, which every byte fits. */
function decode(content: Uint8Array): string {
  if (looksLikeUtf16(content))
    return new TextDecoder(content[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(content);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content);
  } catch {
    // Node 20's own decoder takes windows-1252 for Latin-1 and loses “€” and typographic quotes
    return iconv.decode(Buffer.from(content), 'windows-1252');
  }
}

/** The separator that stands most often in the head, outside quotes. */
function guessSeparator(text: string): string {
  const head = text
    .slice(0, 20_000)
    .replaceAll(/"(?:[^"]|"")*"/gu, '')
    .split(/\r?\n/u, 1)[0]!;
  const count = (separator: string) => head.split(separator).length;
  return [',', ';', '\t', '|'].reduce((best, one) => (count(one) > count(best) ? one : best));
}

function asTable(fileName: string, lines: string[][]): Table {
  const [head, ...body] = lines;
  if (!head?.some((cell) => cell.trim() !== ''))
    throw problems.unreadableSheet(
      `“${fileName}” holds no table: its first row must name the columns.`,
    );
  const width = head.findLastIndex((cell) => cell.trim() !== '') + 1;
  const columns = uniqueNames(head.slice(0, width).map((name) => name.trim()));
  const filled = body.filter((cells) => cells.some((cell) => cell.trim() !== ''));
  return {
    columns,
    rows: filled.map((cells) => Array.from({ length: width }, (_, c) => cells[c] ?? '')),
    unevenRows: filled.flatMap((cells, i) =>
      cells.length < width || cells.slice(width).some((cell) => cell.trim() !== '') ? [i + 2] : [],
    ),
  };
}

/** Names blank columns by their place and tells equal ones apart by a number. */
function uniqueNames(names: string[]): string[] {
  const taken = new Set<string>();
  return names.map((written, c) => {
    const name = written || `Column ${c + 1}`;
    let unique = name;
    for (let n = 2; taken.has(unique); n++) unique = `${name} (${n})`;
    taken.add(unique);
    return unique;
  });
}
