import type { FileSettings } from '@yellow-thread/contract';
import { problems } from '../../wording/problems.js';
import { readJsonLines } from './jsonLines.js';
import { openSpreadsheet } from './openDocument.js';
import { bytesOf, firstBytes, type FileSource } from './source.js';
import { compareEncodings, guessEncoding } from './encodings.js';
import { guessSeparator, readRows, textOf, type RowBatch } from './text.js';
import { openWorkbook } from './workbook.js';
import { openWorkbookZip } from './zip.js';
import { openFileTexts } from '../../wording/sheet.js';

/** A file of a known kind whose rows can be read. */
export interface OpenedFile {
  file: Omit<FileSettings, 'headRow' | 'headRows'>;
  /** True for separated text, which is read from the file itself each time. */
  isText: boolean;
  rows(): AsyncGenerator<RowBatch>;
  close(): void;
}

const zipMark = [0x50, 0x4b, 0x03, 0x04];
const emptyZipMark = [0x50, 0x4b, 0x05, 0x06];
/** Byte order marks of UTF-32 (Unicode 15, section 23.8), of which one begins as that of UTF-16 does. */
const utf32Marks = [
  [0xff, 0xfe, 0, 0],
  [0, 0, 0xfe, 0xff],
];
const oleMark = [0xd0, 0xcf, 0x11, 0xe0];

/**
 * Finds out what a file is, by what it holds and not by its name.
 *
 * @throws Problem unreadable_sheet, sheet_locked
 */
export async function openFile(
  fileName: string,
  source: FileSource,
  choices: Partial<Pick<FileSettings, 'worksheet' | 'separator' | 'encoding'>>,
): Promise<OpenedFile> {
  if (source.size === 0) throw problems.unreadableSheet(openFileTexts.empty(fileName));
  const head = await firstBytes(source, 64 * 1024);
  const startsWith = (mark: number[]) => mark.every((byte, i) => head[i] === byte);
  if (startsWith(oleMark)) throw await lockedOrOld(fileName, source);
  if (startsWith(utf32Marks[0]!) || startsWith(utf32Marks[1]!))
    throw problems.unreadableSheet(openFileTexts.writtenUtf32Which(fileName));
  const other = otherProgram(head);
  if (other) throw problems.unreadableSheet(openFileTexts.otherProgram(fileName, other));
  if (startsWith(zipMark) || startsWith(emptyZipMark))
    return openZipped(fileName, source, choices.worksheet);
  return openText(fileName, source, head, choices);
}

/**
 * Files of other programs, by the bytes that they begin with, which are better exported there.
 *
 * @see Library of Congress, Sustainability of Digital Formats: fdd000469 (SPSS), fdd000471 (Stata), fdd000464 (SAS)
 */
/* eslint-disable no-control-regex -- these formats begin so */
const otherPrograms: [RegExp, keyof typeof openFileTexts.saveAs][] = [
  [/^\$FL[23]/u, 'sav'],
  [/^<stata_dta>|^[\u0069-\u0073][\u0001\u0002]\u0001\u0000/u, 'dta'],
  [/^\u0000{12}\u00c2\u00ea\u0081\u0060/u, 'sas'],
  [/^%PDF-/u, 'pdf'],
  [/^(?:\u00ef\u00bb\u00bf)?\s*<\?xml[^>]*>\s*<office:document\b/u, 'fods'],
  [/^(?:\u00ef\u00bb\u00bf)?\s*(?:<!doctype html|<html\b)/iu, 'html'],
  [/^\{\\rtf/u, 'rtf'],
];
/* eslint-enable no-control-regex */

const otherProgram = (head: Uint8Array): keyof typeof openFileTexts.saveAs | null => {
  const start = Buffer.from(head.subarray(0, 2000)).toString('latin1');
  return otherPrograms.find(([mark]) => mark.test(start))?.[1] ?? null;
};

/** A workbook with a password lies in the same kind of container as one of the old format. */
async function lockedOrOld(fileName: string, source: FileSource) {
  const mark = Buffer.from('EncryptedPackage', 'utf16le');
  for await (const bytes of bytesOf(source))
    if (Buffer.from(bytes).includes(mark)) return problems.sheetLocked(fileName);
  return problems.unreadableSheet(openFileTexts.oldXlsFormatSave(fileName));
}

async function openZipped(
  fileName: string,
  source: FileSource,
  wanted: string | undefined,
): Promise<OpenedFile> {
  const zip = await openWorkbookZip(source, fileName);
  const opened = zip.names.includes('xl/workbook.xml')
    ? { format: 'xlsx' as const, book: await openWorkbook(zip, fileName) }
    : zip.names.includes('content.xml')
      ? { format: 'ods' as const, book: await openOds() }
      : null;
  if (!opened)
    throw problems.unreadableSheet(
      zip.names.some((name) => name.endsWith('.iwa'))
        ? openFileTexts.otherProgram(fileName, 'numbers')
        : openFileTexts.zipFileButNo(fileName),
    );
  const { format, book } = opened;
  const { names } = book.worksheets;
  const worksheet =
    wanted ?? (names.length > 1 ? await book.worksheets.firstFilled() : undefined) ?? names[0];
  if (worksheet === undefined)
    throw problems.unreadableSheet(openFileTexts.holdsNoFilledWorksheet(fileName));
  return {
    file: { format, worksheets: names, worksheet, separator: ',', encoding: 'utf-8' },
    isText: false,
    rows: () => book.rows(worksheet),
    close: () => zip.close(),
  };

  async function openOds() {
    const manifest = zip.names.includes('META-INF/manifest.xml')
      ? await zip.text('META-INF/manifest.xml')
      : '';
    if (manifest.includes('encryption-data')) throw problems.sheetLocked(fileName);
    const spreadsheet = openSpreadsheet(zip, fileName);
    return { worksheets: await spreadsheet.worksheets(), rows: spreadsheet.rows };
  }
}

async function openText(
  fileName: string,
  source: FileSource,
  head: Uint8Array,
  choices: Partial<Pick<FileSettings, 'separator' | 'encoding'>>,
): Promise<OpenedFile> {
  const guess = await guessEncoding(source);
  const encoding = choices.encoding ?? guess;
  if (head.includes(0) && !encoding.startsWith('utf-16'))
    throw problems.unreadableSheet(openFileTexts.neitherTextFileNor(fileName));
  const pieces = () => textOf(source, encoding);
  const beginning = await pieces().next();
  const start = beginning.done ? '' : beginning.value;
  const readings = await compareEncodings(source, encoding, guess);
  const shared = { worksheets: [], worksheet: '', encoding, readings };
  if (choices.separator === undefined && isJsonLine(start))
    return {
      file: { format: 'json_lines', separator: ',', ...shared },
      isText: false,
      rows: () => readJsonLines(pieces, fileName),
      close: () => {},
    };
  const separator = choices.separator ?? guessSeparator(start);
  return {
    file: { format: 'text', separator, ...shared },
    isText: true,
    rows: () => readRows(pieces(), separator, fileName),
    close: () => {},
  };
}

function isJsonLine(start: string): boolean {
  const line = start.trimStart().split(/\r?\n/u, 1)[0]!;
  return /^\{\s*"(?:[^"\\]|\\.)*"\s*:/u.test(line);
}
