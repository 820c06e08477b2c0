export type CsvValue = string | number | null;

/** What a spreadsheet program would run as a formula, also once it has been marked as text. */
const runnable = /^'*[=+\-@\t\r\n]./su;
const marked = /^'+[=+\-@\t\r\n]./su;

/**
 * Writes a table as CSV (RFC 4180) with CRLF line ends.
 *
 * @param readBy spreadsheet programs would run a text that begins with = + - @, a tab or a line break as a formula: for
 *   them it gets a leading apostrophe, which they read as "this is text", and `withoutTextMark` takes off again. Other
 *   programs get texts as they are. Numbers never have a mark.
 */
export function writeCsv(
  rows: readonly (readonly CsvValue[])[],
  readBy: 'spreadsheets' | 'programs' = 'spreadsheets',
): string {
  const write = (value: CsvValue): string => {
    if (value === null) return '';
    if (typeof value === 'number') return String(value);
    const safe = readBy === 'spreadsheets' && runnable.test(value) ? `'${value}` : value;
    return /[",\r\n]/u.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
  };
  return rows.map((row) => `${row.map(write).join(',')}\r\n`).join('');
}

/** A text as it was before `writeCsv` marked it for spreadsheet programs. */
export const withoutTextMark = (text: string): string => (marked.test(text) ? text.slice(1) : text);
