export type CsvValue = string | number | null;

/**
 * Writes a table as CSV (RFC 4180) with CRLF line ends. A text that a spreadsheet program would take for
 * a formula (beginning with = + - @, a tab or a line break) is written with a leading apostrophe, which
 * those programs read as "this is text"; numbers are left as they are.
 */
export function writeCsv(rows: readonly (readonly CsvValue[])[]): string {
  return rows.map((row) => row.map(writeCell).join(',') + '\r\n').join('');
}

function writeCell(value: CsvValue): string {
  if (value === null) return '';
  if (typeof value === 'number') return String(value);
  const safe = /^[=+\-@\t\r\n]./su.test(value) ? `'${value}` : value;
  return /[",\r\n]/u.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
