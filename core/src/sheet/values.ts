/** A number written in a cell, with a decimal point or comma; null when the cell holds none. */
export function parseNumber(cell: string): number | null {
  const trimmed = cell.trim();
  if (!/^[+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:e[+-]?\d+)?$/iu.test(trimmed)) return null;
  return Number(trimmed.replace(',', '.'));
}

/**
 * A calendar date written as 2026-03-09 (ISO 8601, a time may follow), 9.3.2026 or 31/12/2026 (day
 * first), as ISO 8601; null when the cell holds none.
 */
export function parseDate(cell: string): string | null {
  const trimmed = cell.trim();
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/u.exec(trimmed);
  const dayFirst = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/u.exec(trimmed);
  const parts = iso
    ? [iso[1], iso[2], iso[3]]
    : dayFirst && [dayFirst[3], dayFirst[2], dayFirst[1]];
  if (!parts) return null;
  const [year, month, day] = parts.map(Number) as [number, number, number];
  const date = new Date(Date.UTC(year, month - 1, day));
  const real = date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
  return real ? date.toISOString().slice(0, 10) : null;
}

const yes = new Set(['yes', 'y', 'true', '1', 'ja', 'oui', 'sí', 'si']);
const no = new Set(['no', 'n', 'false', '0', 'nein', 'non', 'nee']);

/** Yes or no as written in a cell in a few languages; null when neither. */
export function parseYesNo(cell: string): boolean | null {
  const folded = cell.trim().toLowerCase();
  return yes.has(folded) ? true : no.has(folded) ? false : null;
}
