import { Readable } from 'node:stream';
import { separatorSchema, type Separator } from '@yellow-thread/contract';
import iconv from 'iconv-lite';
import Papa from 'papaparse';
import { problems } from '../../wording/problems.js';
import type { Encoding } from './encodings.js';
import { PIECE, piecesOf, type FileSource } from './source.js';
import { textTexts } from '../../wording/sheet.js';

export const SEPARATORS = separatorSchema.options;

/** Rows of a file with their numbers in it, from 1. */
export interface RowBatch {
  /** Number of the first row of the batch. */
  row: number;
  rows: string[][];
}

const HEAD = 64 * 1024;
/** No row of answers is longer, in characters. */
export const LONGEST_ROW = 2 ** 20;

/** The file's text, piece by piece, without the byte order mark. */
export async function* textOf(source: FileSource, encoding: Encoding): AsyncGenerator<string> {
  // Node 20's own decoder takes windows-1252 for Latin-1 and loses “€” and typographic quotes
  if (!encoding.startsWith('utf')) {
    const decoder = iconv.getDecoder(encoding);
    for await (const bytes of piecesOf(source)) yield decoder.write(Buffer.from(bytes));
    const rest = decoder.end();
    if (rest) yield rest;
    return;
  }
  const decoder = new TextDecoder(encoding);
  for await (const bytes of piecesOf(source)) yield decoder.decode(bytes, { stream: true });
  yield decoder.decode();
}

/** The separator that stands most often in the first filled lines, outside quotes. */
export function guessSeparator(text: string): Separator {
  const lines = text
    .slice(0, HEAD)
    .replaceAll(/"(?:[^"]|"")*"/gu, '')
    .split(/\r?\n|\r/u)
    .filter((line) => line.trim() !== '')
    .slice(0, 2);
  const count = (separator: string) =>
    Math.max(0, ...lines.map((line) => line.split(separator).length - 1));
  return SEPARATORS.reduce<Separator>((best, one) => (count(one) > count(best) ? one : best), ',');
}

/**
 * Reads separated values (RFC 4180 and its common relatives) as they stream by.
 *
 * @throws Problem unreadable_sheet when a quotation mark is never closed
 */
export async function* readRows(
  pieces: AsyncIterable<string>,
  separator: string,
  fileName: string,
): AsyncGenerator<RowBatch> {
  let newline: '\n' | '\r' | undefined;
  const guessing = async function* () {
    for await (const piece of pieces) {
      // by itself the parser would take one kind of line end for the whole file
      newline ??= !piece.includes('\n') && /\r(?!$)/u.test(piece) ? '\r' : '\n';
      if (piece !== '') yield piece;
    }
  };
  const input = guessing();
  const first = await input.next();
  if (first.done) return;
  const whole = async function* () {
    yield first.value;
    yield* input;
  };
  let row = 1;
  /** Pieces in which no row ended: the parser reads all of them again with every one that comes. */
  let without = 0;
  for await (const { data, errors } of parseChunks(Readable.from(whole()), separator, newline!)) {
    const unclosed = errors.find((error) => error.code === 'MissingQuotes');
    if (unclosed)
      throw problems.unreadableSheet(textTexts.quotationMarkOpensRow(fileName, row, unclosed.row));
    without = data.length > 0 ? 0 : without + 1;
    if (without * PIECE > LONGEST_ROW)
      throw problems.unreadableSheet(
        textTexts.rowMoreCharactersPerhaps(row, fileName, LONGEST_ROW.toLocaleString('en')),
      );
    for (const cells of data) {
      const last = cells.length - 1;
      if (cells[last]!.endsWith('\r')) cells[last] = cells[last]!.slice(0, -1);
    }
    yield { row, rows: data };
    row += data.length;
  }
}

/** The parser's chunks as they are asked for: it waits while one is being worked on. */
async function* parseChunks(
  input: Readable,
  delimiter: string,
  newline: '\n' | '\r',
): AsyncGenerator<Papa.ParseResult<string[]>> {
  const ready: Papa.ParseResult<string[]>[] = [];
  const paused: Papa.Parser[] = [];
  let ended = false;
  const failures: Error[] = [];
  let wake = () => {};
  Papa.parse<string[]>(input, {
    delimiter,
    newline,
    chunk: (results, handle) => {
      ready.push(results);
      handle.pause();
      paused.push(handle);
      wake();
    },
    complete: () => {
      ended = true;
      wake();
    },
    error: (error) => {
      failures.push(error);
      wake();
    },
  });
  try {
    for (;;) {
      const next = ready.shift();
      if (next) yield next;
      else if (failures[0]) throw failures[0];
      else if (ended) return;
      else {
        const waiting = new Promise<void>((resolve) => (wake = resolve));
        // resuming may parse on at once, so the promise is made before
        paused.pop()?.resume();
        await waiting;
      }
    }
  } finally {
    input.destroy();
  }
}

/** Rows as UTF-8 text that `readRows` reads back equal, with a comma as the separator. */
export function writeRows(rows: readonly (readonly string[])[]): Uint8Array {
  let text = '';
  for (const row of rows) {
    for (let c = 0; c < row.length; c++) {
      const cell = row[c]!;
      if (c > 0) text += ',';
      // blanks at the ends of a cell are its own only within quotes
      text += /[",\n\r]|^\s|\s$|^\uFEFF/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;
    }
    text += '\n';
  }
  return Buffer.from(text);
}
