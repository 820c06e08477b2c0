/**
 * How the numbers or dates of a column are written, where that can be read in two ways: with a comma or a point between
 * thousands, or with the month before the day. '' for the usual: a comma or a point before decimals, the day first.
 */
export type Writing = '' | 'comma_groups' | 'point_groups' | 'month_first';

const usualNumber = /^[+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:e[+-]?\d+)?$/iu;
const commaGroups = /^[+-]?(?:[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?|\d*\.?\d+)$/u;
const pointGroups = /^[+-]?(?:[1-9]\d{0,2}(?:\.\d{3})+(?:,\d+)?|\d*,?\d+)$/u;

/** A number written in a cell; null when the cell holds none. */
export function parseNumber(cell: string, writing: Writing = ''): number | null {
  const trimmed = cell.trim();
  if (writing === 'comma_groups')
    return commaGroups.test(trimmed) ? Number(trimmed.replaceAll(',', '')) : null;
  if (writing === 'point_groups')
    return pointGroups.test(trimmed) ? Number(trimmed.replaceAll('.', '').replace(',', '.')) : null;
  return usualNumber.test(trimmed) ? Number(trimmed.replace(',', '.')) : null;
}

const yearFirst = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/u;
const yearLast = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})(?:,? +\d{1,2}:\d{2}.*)?$/u;

/**
 * A calendar date written as 2026-03-09 (ISO 8601), 9.3.2026, 31-12-2026 or 31/12/2026, as ISO 8601; a time of day may
 * follow. Null when the cell holds none. Only with a stroke does anybody write the month first.
 */
export function parseDate(cell: string, writing: Writing = ''): string | null {
  const trimmed = cell.trim();
  const iso = yearFirst.exec(trimmed);
  if (iso) return calendarDate(iso[1]!, iso[2]!, iso[3]!);
  const [, first, mark, second, year] = yearLast.exec(trimmed) ?? [];
  if (year === undefined) return null;
  return writing === 'month_first' && mark === '/'
    ? calendarDate(year, first!, second!)
    : calendarDate(year, second!, first!);
}

function calendarDate(year: string, month: string, day: string): string | null {
  const date = new Date(Date.UTC(Number(year), Number(month) - 1, Number(day)));
  const real = date.getUTCMonth() === Number(month) - 1 && date.getUTCDate() === Number(day);
  return real ? date.toISOString().slice(0, 10) : null;
}

/** In which ways all of some values can be read, of those that can be read at all: one of each that say the same. */
export function writingsFor(kind: 'number' | 'date', values: readonly string[]): Writing[] {
  const ways: Writing[] =
    kind === 'number' ? ['', 'comma_groups', 'point_groups'] : ['', 'month_first'];
  const read = kind === 'number' ? parseNumber : parseDate;
  const readable = values.filter((value) => ways.some((way) => read(value, way) !== null));
  const byReading = new Map<string, Writing>();
  for (const way of ways) {
    const readings = readable.map((value) => read(value, way));
    const reading = readings.join(' ');
    if (!readings.includes(null) && !byReading.has(reading)) byReading.set(reading, way);
  }
  return [...byReading.values()];
}

/** Whether a date is followed by a time of day that it is kept without. */
export const hasTimeOfDay = (cell: string): boolean =>
  /\d:\d/u.test(cell) &&
  !/[T ]0?0:00(?::00(?:\.0+)?)?(?: *(?:Z|[+-]\d{2}:?\d{2}))?$/u.test(cell.trim());

const yes = new Set(['yes', 'y', 'true', '1', 'ja', 'oui', 'sí', 'si']);
const no = new Set(['no', 'n', 'false', '0', 'nein', 'non', 'nee']);

/** Yes or no as written in a cell in a few languages; null when neither. */
export function parseYesNo(cell: string): boolean | null {
  const folded = cell.trim().toLowerCase();
  return yes.has(folded) ? true : no.has(folded) ? false : null;
}
