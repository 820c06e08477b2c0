import { duplicateKey } from '../text/index.js';
import type { BackgroundKind, BackgroundValue } from './settings.js';
import { parseDate, parseNumber, parseYesNo, type Writing } from './values.js';

// eslint-disable-next-line no-control-regex -- control characters are what is looked for
const controlCharacters = /[\u0000-\u0008\u000B\u000C\u000E-\u001F]/u;

// control characters, carriage returns, halves of characters and replacement characters
// eslint-disable-next-line no-control-regex -- control characters are what is looked for
const odd = /[\u0000-\u0008\u000B-\u001F\uD800-\uDFFF\uFFFD]/;

/** True when a cell holds anything that needs a closer look; most hold none. */
export const isOdd = (cell: string): boolean => odd.test(cell);

export const holdsControls = (cell: string): boolean => controlCharacters.test(cell);

/** A cell's text without the control characters that PostgreSQL or a page cannot hold. */
export function cleanText(cell: string): string {
  if (!odd.test(cell)) return cell;
  const plain = holdsControls(cell)
    ? cell.replaceAll(new RegExp(controlCharacters, 'gu'), '')
    : cell;
  const unix = plain.includes('\r') ? plain.replaceAll(/\r\n?/gu, '\n') : plain;
  return unix.isWellFormed() ? unix : unix.toWellFormed();
}

/** Text that a spreadsheet program would take for a formula; a number with its sign is none. */
export const isDangerous = (cell: string): boolean =>
  /^[=+\-@\t\r]./su.test(cell) && parseNumber(cell) === null && duplicateKey(cell) !== '';

/** The value of a background cell; null when it is blank or does not say what it should. */
export function readBackground(
  cell: string,
  kind: BackgroundKind,
  writing: Writing = '',
): BackgroundValue | null {
  const trimmed = cell.trim();
  if (trimmed === '') return null;
  if (kind === 'number') return parseNumber(trimmed, writing);
  if (kind === 'date') return parseDate(trimmed, writing);
  if (kind === 'yes_no') return parseYesNo(trimmed);
  return trimmed;
}

/** True for a value as it is stored for a variable of this kind. */
export const isStoredAs = (value: BackgroundValue, kind: BackgroundKind): boolean =>
  kind === 'number'
    ? typeof value === 'number'
    : kind === 'yes_no'
      ? typeof value === 'boolean'
      : typeof value === 'string' && (kind !== 'date' || parseDate(value) === value);

/** A tick box: blank and a written no are no, anything else is a tick. */
export const readTick = (cell: string): boolean => cell.trim() !== '' && parseYesNo(cell) !== false;

/** Parts of a cell that holds several, without blank and repeated ones. */
export const splitParts = (cell: string, separator: string): string[] => [
  ...new Set(
    cell
      .split(separator)
      .map((part) => part.replaceAll(/\s+/gu, ' ').trim())
      .filter((part) => part !== ''),
  ),
];

const MOST_TIMES = 20;

/** How often a code is raised according to its own cell: 0, 1, 2 …; yes or any mark is once. */
export function readTimes(cell: string): number {
  const number = parseNumber(cell);
  if (number !== null) return Math.min(MOST_TIMES, Math.max(0, Math.round(number)));
  return readTick(cell) ? 1 : 0;
}

/** What spreadsheet programs show where a formula could not be computed. @see ISO/IEC 29500-1, 18.17.3 */
const errorValue =
  /^#(?:N\/A|DIV\/0!|REF!|VALUE!|NAME\?|NUM!|NULL!|GETTING_DATA|SPILL!|CALC!|FIELD!|BLOCKED!)$/u;

export const isErrorValue = (cell: string): boolean =>
  cell.charCodeAt(0) === 0x23 && errorValue.test(cell.trim());

/** Cells with blanks where a formula could not be computed; most rows have none. */
export const withoutErrors = (cells: readonly string[]): readonly string[] =>
  cells.some(isErrorValue) ? cells.map((cell) => (isErrorValue(cell) ? '' : cell)) : cells;

/** UTF-8 that was read as Windows-1252 once before it was written: "Ã©" for "é", "â€™" for "’". */
const readWrongly = /Ã[\u00a0-\u00bf„Ÿ–‰œ]|â€[™œ“”˜¦]|Â[\u00a0-\u00bf]/u;

export const isMojibake = (cell: string): boolean => readWrongly.test(cell);
