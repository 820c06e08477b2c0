import type { HeadColumn } from './settings.js';
import { parseDate, parseNumber, parseYesNo } from './values.js';

/** Where the head of a sheet is and what it says. */
export interface SheetHead {
  /** Number of the head's first row in the file, from 1. */
  row: number;
  /** How many rows it takes: one, or two of code and wording. */
  rows: 1 | 2;
  columns: HeadColumn[];
}

const filled = (cells: readonly string[]) => cells.filter((cell) => cell.trim() !== '').length;

/**
 * Finds the head among the first rows of a sheet: the first row that is at least half as full as the
 * fullest, and more than one cell where there are several (a title above the table is not), and whether the row below it belongs to it.
 *
 * @param first rows of the file from its first on, blank ones among them
 * @param said in which row the head begins, from 1, and how many rows it takes, where the researcher said so
 * @returns null when there is no filled row
 */
export function findHead(
  first: readonly (readonly string[])[],
  said: { row?: number | undefined; rows?: 1 | 2 | undefined } = {},
): SheetHead | null {
  const fullest = Math.max(0, ...first.map(filled));
  const least = Math.max(fullest / 2, Math.min(2, fullest), 1);
  const at = said.row ? said.row - 1 : first.findIndex((cells) => filled(cells) >= least);
  if (at < 0 || filled(first[at] ?? []) === 0) return null;
  const upper = first[at]!;
  const lower = first[at + 1] ?? [];
  const taken = said.rows ?? (looksLikeSecondHead(upper, lower, first.slice(at + 2)) ? 2 : 1);
  const width = Math.max(lastFilled(upper), taken === 2 ? lastFilled(lower) : 0) + 1;
  const columns = Array.from({ length: width }, (_, c) =>
    taken === 2 ? joinHeads(upper, lower, c) : { code: '', name: (upper[c] ?? '').trim() },
  );
  return { row: at + 1, rows: taken, columns: tellApart(columns) };
}

const lastFilled = (cells: readonly string[]) => cells.findLastIndex((cell) => cell.trim() !== '');

/** Names of columns made of one word, as exports give them: Q1, Q5_2, respid. */
const isCode = (cell: string) => /^\S{1,24}$/u.test(cell.trim());
/** A code that is no word of its own. */
const isNumbered = (cell: string) => isCode(cell) && /[\d_]/u.test(cell);

/** What a value looks like: "R12" and "K07" look the same. */
const shapeOf = (cell: string) =>
  cell
    .trim()
    .replaceAll(/\p{L}+/gu, 'a')
    .replaceAll(/\d+/gu, '9');

/**
 * A second row belongs to the head when codes with numbers stand above wordings, or cells were merged over
 * several columns, and when nothing in it is a value: no number, date, yes or no, nothing that stands
 * further down again or looks like an id there. The first respondent must never end up in the head, so in
 * doubt it does not belong to it.
 */
function looksLikeSecondHead(
  upper: readonly string[],
  lower: readonly string[],
  below: readonly (readonly string[])[],
): boolean {
  const isUnderMerged = fillsMergedOnly(upper, lower);
  if (below.length === 0 || (2 * filled(lower) < filled(upper) && !isUnderMerged)) return false;
  const isValue = (cell: string) =>
    parseNumber(cell) !== null || parseDate(cell) !== null || parseYesNo(cell) !== null;
  let differs = false;
  for (const [c, cell] of lower.entries()) {
    if (cell.trim() === '') continue;
    if (isValue(cell)) return false;
    const values = below.map((cells) => (cells[c] ?? '').trim()).filter((value) => value !== '');
    if (values.includes(cell.trim())) return false;
    const shape = shapeOf(cell);
    if (shape.includes('9') && values.some((value) => shapeOf(value) === shape)) return false;
    if (values.length > 0 && values.every(isValue)) differs = true;
    if (values.length > 2 && new Set(values).size < values.length) differs = true;
  }
  if (!differs) return false;
  const wordy = lower.flatMap((cell, c) => (/\s/u.test(cell.trim()) ? [upper[c] ?? ''] : []));
  const codesAbove = wordy.length > 0 && 2 * wordy.filter(isNumbered).length >= wordy.length;
  // merged over several columns here, and elsewhere over both rows: an unnamed column alone is neither
  const across = upper.some((cell, c) => c > 0 && cell.trim() === '' && (lower[c] ?? '').trim());
  const down = upper.some((cell, c) => cell.trim() !== '' && (lower[c] ?? '').trim() === '');
  return codesAbove || (across && down);
}

/** Whether a row is filled under cells that were merged over several columns, all of these columns, and nowhere else. */
function fillsMergedOnly(upper: readonly string[], lower: readonly string[]): boolean {
  const isFilled = (cells: readonly string[], c: number) => (cells[c] ?? '').trim() !== '';
  const last = Math.max(lastFilled(upper), lastFilled(lower));
  let hasMerged = false;
  for (let c = 0; c <= last;) {
    let next = c + 1;
    while (next <= last && !isFilled(upper, next)) next += 1;
    const isMerged = next - c > 1;
    for (let k = c; k < next; k++) if (isFilled(lower, k) !== isMerged) return false;
    hasMerged ||= isMerged;
    c = next;
  }
  return hasMerged;
}

/** A cell of the upper row counts for the blank ones to its right too: it was merged over them. */
function joinHeads(upper: readonly string[], lower: readonly string[], c: number): HeadColumn {
  const below = (lower[c] ?? '').trim();
  const own = (upper[c] ?? '').trim();
  const above =
    own || (below ? upper.slice(0, c).findLast((cell) => cell.trim() !== '') : '') || '';
  if (below === '') return { code: '', name: own };
  if (above === '' || above.trim() === below) return { code: '', name: below };
  return isCode(above)
    ? { code: above.trim(), name: below }
    : { code: '', name: `${above.trim()}: ${below}` };
}

/**
 * What a column is called in the sheet, where another has the same name and it was renamed: of two blocks of
 * columns for the same codes both are for the very same codes.
 */
export function nameAsWritten(columns: readonly HeadColumn[], c: number): string {
  const { name, code } = columns[c]!;
  const written = [
    / \(\d+\)$/u.test(name) ? name.replace(/ \(\d+\)$/u, '') : null,
    code && name.startsWith(`${code} `) ? name.slice(code.length + 1) : null,
  ];
  return (
    written.find(
      (one) => one !== null && columns.slice(0, c).some(({ name: other }) => other === one),
    ) ?? name
  );
}

/** Names blank columns by their position and distinguishes equal names by their code or a number. */
function tellApart(columns: readonly HeadColumn[]): HeadColumn[] {
  const taken = new Set<string>();
  return columns.map(({ name: written, code }, c) => {
    const name = written || `Column ${c + 1}`;
    let unique = taken.has(name) && code ? `${code} ${name}` : name;
    for (let n = 2; taken.has(unique); n++) unique = `${name} (${n})`;
    taken.add(unique);
    return { name: unique, code };
  });
}
