import { listedCodeSchema, type ListedCode } from '@yellow-thread/contract';
import { withoutTextMark } from '@yellow-thread/core/exchange';
import { findHead } from '@yellow-thread/core/sheet';
import { foldForMatching } from '@yellow-thread/core/text';
import { problems } from '../wording/problems.js';
import { readTable } from '../sheet/readTable.js';
import { readQdc } from './qdc.js';
import { readListedTexts } from '../wording/exchange.js';

/** What the columns of a code list may be called, in English and German. */
const columnNames: Record<keyof ListedCode, RegExp> = {
  theme: /^(?:theme|category|parent|group|thema|kategorie|oberkategorie)$/iu,
  name: /^(?:code|name|code name|label|bezeichnung)$/iu,
  definition: /^(?:definition|description|meaning|beschreibung)$/iu,
  include: /^(?:include|includes|inclusion|einschluss)$/iu,
  exclude: /^(?:leave out|exclude|excludes|exclusion|ausschluss)$/iu,
  bundles: /^(?:bundles?|bündel)$/iu,
};

/** As many as are taken in at once. */
const MOST_CODES = 5000;

export interface ListedCodes {
  codes: ListedCode[];
  /** Rows or codes that cannot be taken, and why. */
  left: string[];
}

/**
 * Reads a code list from a sheet or a REFI-QDA codebook.
 *
 * @throws Problem unreadable_sheet
 */
export async function readListed(fileName: string, content: Uint8Array): Promise<ListedCodes> {
  const written = decoded(content);
  const isXml = /^\s*<(?:\?xml|CodeBook)/u.test(written);
  const { codes: listed, joined } = isXml
    ? readQdc(written, fileName)
    : { codes: fromTable(await readTable(fileName, content), fileName), joined: [] };
  if (listed.length > MOST_CODES)
    throw problems.unreadableSheet(
      readListedTexts.holdsCodesMostTaken(fileName, listed.length, MOST_CODES),
    );
  const left = [...joined];
  const codes = new Map<string, ListedCode>();
  for (const [place, code] of listed.entries()) {
    const checked = listedCodeSchema.safeParse(code);
    const name = foldForMatching(code.name);
    if (!checked.success)
      left.push(readListedTexts.codeCannotKept(place, String(checked.error.issues[0]!.path[0])));
    else if (codes.has(name)) left.push(readListedTexts.codeListTwiceFirst(place, code.name));
    else codes.set(name, checked.data);
  }
  if (codes.size === 0) throw problems.unreadableSheet(readListedTexts.holdsNoCodesCode(fileName));
  return { codes: [...codes.values()], left };
}

/** The text of a file, in UTF-16 where a byte order mark says so, without the mark. */
function decoded(content: Uint8Array): string {
  const [first, second] = content;
  const encoding =
    first === 0xff && second === 0xfe
      ? 'utf-16le'
      : first === 0xfe && second === 0xff
        ? 'utf-16be'
        : 'utf-8';
  return new TextDecoder(encoding).decode(content);
}

function fromTable(rows: readonly string[][], fileName: string): ListedCode[] {
  const head = findHead(rows.slice(0, 20));
  const names = head ? (rows[head.row - 1] ?? []).map((cell) => cell.trim()) : [];
  const columnOf = (field: keyof ListedCode) =>
    names.findIndex((name) => columnNames[field].test(name));
  if (columnOf('name') < 0)
    throw problems.unreadableSheet(readListedTexts.noColumnCodeName(fileName));
  const cell = (row: readonly string[], field: keyof ListedCode) =>
    withoutTextMark((row[columnOf(field)] ?? '').trim());
  return rows
    .slice(head!.row)
    .filter((row) => cell(row, 'name') !== '')
    .map((row) => ({
      theme: cell(row, 'theme') || null,
      name: cell(row, 'name'),
      definition: cell(row, 'definition'),
      include: cell(row, 'include'),
      exclude: cell(row, 'exclude'),
      bundles: cell(row, 'bundles')
        .split(';')
        .map((name) => name.trim())
        .filter((name) => name !== ''),
    }));
}
