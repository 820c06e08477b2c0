import { Readable } from 'node:stream';
import { encodingSchema, type FileSettings } from '@yellow-thread/contract';
import chardet from 'chardet';
import iconv from 'iconv-lite';
import Papa from 'papaparse';
import { problems } from '../../wording/problems.js';
import { bytesOf, firstBytes, type FileSource } from './source.js';
import { textTexts } from '../../wording/sheet.js';

export const ENCODINGS = encodingSchema.options;
export type Encoding = FileSettings['encoding'];
export const SEPARATORS = [',', ';', '\t', '|'] as const;

/** Rows of a file with their numbers in it, from 1. */
export interface RowBatch {
  /** Number of the first row of the batch. */
  row: number;
  rows: string[][];
}

const HEAD = 64 * 1024;
/**
 * So many bytes become rows at a time. They are forgotten before the collector of garbage comes by: of a whole part
 * it would move every cell once.
 */
const PIECE = 64 * 1024;

/** No row of answers is longer, in characters. */
export const LONGEST_ROW = 2 ** 20;

/** UTF-16 where marked so or where every other byte is null; else UTF-8 unless that turns out not to fit. */
export async function guessEncoding(source: FileSource): Promise<Encoding> {
  const head = await firstBytes(source, HEAD);
  const [first, second] = head;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  const nulls = [0, 0];
  for (const [i, byte] of head.entries()) if (byte === 0) nulls[i % 2]! += 1;
  if (nulls[1]! > 0.3 * head.length) return 'utf-16le';
  if (nulls[0]! > 0.3 * head.length) return 'utf-16be';
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for await (const bytes of bytesOf(source)) decoder.decode(bytes, { stream: true });
    decoder.decode();
    return 'utf-8';
  } catch {
    return guessOldEncoding(await linesBeyondAscii(source));
  }
}

/** What a detector calls an encoding that has another name here, or is part of one. */
const asKnown: Record<string, Encoding> = {
  'iso-8859-1': 'windows-1252',
  'iso-8859-6': 'windows-1256',
  'iso-8859-8': 'windows-1255',
  'iso-8859-9': 'windows-1254',
};
const multiByte = new Set<Encoding>(['gb18030', 'big5', 'shift_jis', 'euc-jp', 'euc-kr']);
/** With less confidence, of 100, a guess is no better than the most common encoding. */
const LEAST_CONFIDENCE = { oneByte: 20, multiByte: 50 };

/** By how often runs of letters occur in languages; where that says little, Windows-1252, in which every byte is something. */
function guessOldEncoding(text: Buffer): Encoding {
  for (const { name, confidence } of chardet.analyse(text)) {
    const folded = name.toLowerCase();
    const known = asKnown[folded] ?? ENCODINGS.find((one) => one === folded);
    if (!known || known.startsWith('utf')) continue;
    const least = multiByte.has(known) ? LEAST_CONFIDENCE.multiByte : LEAST_CONFIDENCE.oneByte;
    if (confidence < least) return 'windows-1252';
    // Ά is the one letter in which the two Greek sets differ
    return known === 'iso-8859-7' && text.includes(0xa2) && !text.includes(0xb6)
      ? 'windows-1253'
      : known;
  }
  return 'windows-1252';
}

/** The first lines that hold more than ASCII: in the others all of these encodings are alike. */
async function linesBeyondAscii(source: FileSource): Promise<Buffer> {
  const lines: Buffer[] = [];
  let size = 0;
  for await (const bytes of piecesOf(source)) {
    const piece = Buffer.from(bytes);
    for (let at = 0; at < piece.length;) {
      const end = piece.indexOf(0x0a, at);
      const line = piece.subarray(at, end < 0 ? piece.length : end + 1);
      at += line.length;
      if (!line.some((byte) => byte >= 0x80)) continue;
      lines.push(line);
      size += line.length;
    }
    if (size > HEAD) break;
  }
  return Buffer.concat(lines);
}

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

async function* piecesOf(source: FileSource): AsyncGenerator<Uint8Array> {
  for await (const bytes of bytesOf(source))
    for (let at = 0; at < bytes.length; at += PIECE) yield bytes.subarray(at, at + PIECE);
}

/** The separator that stands most often in the first filled lines, outside quotes. */
export function guessSeparator(text: string): string {
  const lines = text
    .slice(0, HEAD)
    .replaceAll(/"(?:[^"]|"")*"/gu, '')
    .split(/\r?\n|\r/u)
    .filter((line) => line.trim() !== '')
    .slice(0, 2);
  const count = (separator: string) =>
    Math.max(0, ...lines.map((line) => line.split(separator).length - 1));
  return SEPARATORS.reduce<string>((best, one) => (count(one) > count(best) ? one : best), ',');
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
