import Papa from 'papaparse';

export type CsvValue = string | number | null;

/** What a spreadsheet program would run as a formula, also once it has been marked as text. */
const runnable = /^'*[=+\-@\t\r\n]./su;
const marked = /^'+[=+\-@\t\r\n]./su;

/**
 * Writes a table as CSV (RFC 4180) with CRLF line ends.
 *
 * @param readBy spreadsheet programs would run a text that begins with = + - @, a tab or a line break as a formula: for
 *   them it gets a leading apostrophe, which they read as "this is text", and `withoutTextMark` removes again. Other
 *   programs get texts as they are. Numbers never have a mark.
 */
export function writeCsv(
  rows: readonly (readonly CsvValue[])[],
  readBy: 'spreadsheets' | 'programs' = 'spreadsheets',
): string {
  const safe = (value: CsvValue): CsvValue =>
    readBy === 'spreadsheets' && typeof value === 'string' && runnable.test(value)
      ? `'${value}`
      : value;
  const lines = Papa.unparse(
    rows.map((row) => row.map(safe)),
    { newline: '\r\n' },
  );
  return rows.length === 0 ? '' : `${lines}\r\n`;
}

/** A text as it was before `writeCsv` marked it for spreadsheet programs. */
export const withoutTextMark = (text: string): string => (marked.test(text) ? text.slice(1) : text);
