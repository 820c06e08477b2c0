/**
 * How the numbers or dates of a column are written, where that can be read in two ways: with a comma or a point between
 * thousands, or with the month before the day. '' for the usual: a comma or a point before decimals, the day first.
 */
export type Writing = '' | 'comma_groups' | 'point_groups' | 'month_first';

const usualNumber = /^[+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:e[+-]?\d+)?$/iu;
const commaGroups = /^[+-]?(?:[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?|\d*\.?\d+)$/u;
const pointGroups = /^[+-]?(?:[1-9]\d{0,2}(?:\.\d{3})+(?:,\d+)?|\d*,?\d+)$/u;
/** Both marks in one number leave no doubt which of them stands before decimals. */
const commaThenPoint = /^[+-]?[1-9]\d{0,2}(?:,\d{3})+\.\d+$/u;
const pointThenComma = /^[+-]?[1-9]\d{0,2}(?:\.\d{3})+,\d+$/u;
/** Thousands by space, by a space that does not break, or by an apostrophe. */
const spacedGroups = /^[+-]?[1-9]\d{0,2}(?:[\s’'˙]\d{3})+(?:[.,]\d+)?$/u;
const currency = String.raw`(?:\p{Sc}|(?:USD|EUR|GBP|CHF|JPY|CAD|AUD|NZD|SEK|NOK|DKK|PLN|CZK|HUF|INR|CNY|BRL|MXN|ZAR|kr|zł|Kč)\.?)`;
const adorned = new RegExp(
  String.raw`^(?<sign>[+-]?)${currency}?\s*(?<number>[+-]?[\d.,\s’'˙]*\d)\s*(?:${currency}|%|‰)?$`,
  'iu',
);

/**
 * A number written in a cell, also with a currency or a percent sign beside it ("£1,234.50", "62.3%", which is 62.3),
 * with thousands by space or apostrophe, or in brackets where it is negative, as accountants write it.
 *
 * @returns null when the cell holds none
 */
export function parseNumber(cell: string, writing: Writing = ''): number | null {
  const trimmed = cell.trim();
  if (writing === '' && usualNumber.test(trimmed)) return Number(trimmed.replace(',', '.'));
  // most cells that are no number hold no digit at all
  if (!/\d/u.test(trimmed) || trimmed.length > LONGEST_NUMBER) return null;
  const bracketed = /^\((.*)\)$/u.exec(trimmed);
  const { sign, number } =
    adorned.exec((bracketed ? bracketed[1]! : trimmed).replace('\u2212', '-').trim())?.groups ?? {};
  if (number === undefined || (sign && /^[+-]/u.test(number))) return null;
  const read = parsePlain(`${sign}${number}`, writing);
  return read === null || !bracketed ? read : -read;
}

const LONGEST_NUMBER = 60;

function parsePlain(number: string, writing: Writing): number | null {
  const joined = spacedGroups.test(number) ? number.replaceAll(/[\s’'˙]/gu, '') : number;
  if (writing === 'comma_groups' || commaThenPoint.test(joined))
    return commaGroups.test(joined) ? Number(joined.replaceAll(',', '')) : null;
  if (writing === 'point_groups' || pointThenComma.test(joined))
    return pointGroups.test(joined) ? Number(joined.replaceAll('.', '').replace(',', '.')) : null;
  return usualNumber.test(joined) ? Number(joined.replace(',', '.')) : null;
}

const time = String.raw`(?:(?:,? +|T)\d{1,2}:\d{2}.*)?`;
const yearFirst = /^(\d{4})([./-])(\d{1,2})\2(\d{1,2})(?:[T ].*)?$/u;
const yearLast = new RegExp(String.raw`^(\d{1,2})([./-])(\d{1,2})\2(\d{4}|\d{2})${time}$`, 'u');
const weekday = String.raw`(?:\p{L}{2,12}\.?,? +)?`;
const dayMonth = new RegExp(
  String.raw`^${weekday}(\d{1,2})(?:st|nd|rd|th|\.)? *-?(?:de )?(\p{L}{3,12})\.?,? *-?(?:de )?(\d{4}|\d{2})${time}$`,
  'iu',
);
const monthDay = new RegExp(
  String.raw`^${weekday}(\p{L}{3,12})\.? +(\d{1,2})(?:st|nd|rd|th)?,? +(\d{4})${time}$`,
  'iu',
);

/** Two digits of a year mean one from 1969 to 2068. @see POSIX.1-2017, strptime, %y */
const PIVOT = 69;
const fullYear = (year: string): string =>
  year.length === 4 ? year : `${Number(year) >= PIVOT ? 19 : 20}${year}`;

/** Whether a date's year has two digits only. */
export const hasShortYear = (cell: string): boolean =>
  yearLast.exec(cell.trim())?.[4]?.length === 2 || dayMonth.exec(cell.trim())?.[3]?.length === 2;

const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'sv', 'da', 'pl'];
const folded = (name: string) =>
  name
    .normalize('NFKD')
    .replaceAll(/[^\p{L}]/gu, '')
    .toLowerCase();
let monthsByName: Map<string, number> | undefined;
/** The number of a month by its name, in full or short, in some languages; made when it is first needed. */
function monthOf(name: string): string | null {
  monthsByName ??= new Map(
    LANGUAGES.flatMap((language) =>
      (['long', 'short'] as const).flatMap((width) => {
        // with a day beside it a month has the form that dates are written with
        const format = new Intl.DateTimeFormat(language, {
          month: width,
          day: 'numeric',
          timeZone: 'UTC',
        });
        return Array.from({ length: 12 }, (_, m): [string, number] => {
          const parts = format.formatToParts(Date.UTC(2026, m, 1));
          return [folded(parts.find(({ type }) => type === 'month')?.value ?? ''), m + 1];
        });
      }),
    ),
  );
  const written = folded(name);
  const known =
    monthsByName.get(written) ??
    // "Sept" and the like
    [...monthsByName].find(([full]) => written.length >= 3 && full.startsWith(written))?.[1];
  return known === undefined ? null : String(known);
}

/**
 * A calendar date as ISO 8601, whose time of day may follow: written as 2026-03-09 or 2026/03/09, 9.3.2026, 31-12-26,
 * 31/12/2026, 9 Mar 2026 or March 9, 2026. Null when the cell holds none. Only with a stroke does anybody write the
 * month first.
 */
export function parseDate(cell: string, writing: Writing = ''): string | null {
  const trimmed = cell.trim();
  if (trimmed.length > LONGEST_NUMBER) return null;
  const first = yearFirst.exec(trimmed);
  if (first) return calendarDate(first[1]!, first[3]!, first[4]!);
  const last = yearLast.exec(trimmed);
  if (last) {
    const year = fullYear(last[4]!);
    return writing === 'month_first' && last[2] === '/'
      ? calendarDate(year, last[1]!, last[3]!)
      : calendarDate(year, last[3]!, last[1]!);
  }
  const named = dayMonth.exec(trimmed);
  if (named) return namedDate(named[3]!, named[2]!, named[1]!);
  const american = monthDay.exec(trimmed);
  return american ? namedDate(american[3]!, american[1]!, american[2]!) : null;
}

function namedDate(year: string, name: string, day: string): string | null {
  const month = monthOf(name);
  return month === null ? null : calendarDate(fullYear(year), month, day);
}

function calendarDate(year: string, month: string, day: string): string | null {
  const date = new Date(Date.UTC(Number(year), Number(month) - 1, Number(day)));
  const real = date.getUTCMonth() === Number(month) - 1 && date.getUTCDate() === Number(day);
  return real ? date.toISOString().slice(0, 10) : null;
}

/**
 * In which ways some values can be read, the way first in which most of them can: one of each that say the same, and
 * none that can be read of fewer than another.
 */
export function writingsFor(kind: 'number' | 'date', values: readonly string[]): Writing[] {
  const ways: Writing[] =
    kind === 'number' ? ['', 'comma_groups', 'point_groups'] : ['', 'month_first'];
  const read = kind === 'number' ? parseNumber : parseDate;
  const tried = ways.map((way) => {
    const readings = values.map((value) => read(value, way));
    return { way, count: readings.filter((one) => one !== null).length, key: readings.join(' ') };
  });
  const most = Math.max(...tried.map(({ count }) => count));
  const byReading = new Map(
    tried
      .filter(({ count }) => count === most)
      .toReversed()
      .map(({ way, key }) => [key, way]),
  );
  return ways.filter((way) => [...byReading.values()].includes(way));
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
