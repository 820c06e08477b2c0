import { bandsTexts } from '../wording/groups.js';
/** One band of a number or date: from its own limit up to the next band's. */
export interface Band {
  label: string;
  /** The lowest value that belongs to it: a number, or a date as ISO 8601. Null: everything below the next. */
  from: number | string | null;
}

/**
 * The band that a value falls into: the last one whose limit it reaches.
 *
 * @param bands in ascending order of their limits; only the first may have none
 * @returns null when the value is below all limits, or missing
 */
export function bandOf(bands: readonly Band[], value: unknown): Band | null {
  if (typeof value !== 'number' && typeof value !== 'string') return null;
  const kind = typeof (bands.find(({ from }) => from !== null)?.from ?? value);
  if (typeof value !== kind) return null;
  return bands.findLast(({ from }) => from === null || from <= value) ?? null;
}

/**
 * Limits as they are typed, separated by commas or blanks: ascending and distinct; anything else is ignored.
 *
 * @example
 *   parseLimits('65, 18', false) // [18, 65]
 */
export function parseLimits(typed: string, areDates: boolean): (number | string)[] {
  const parts = typed.split(/[,;\s]+/u).filter((part) => part !== '');
  if (areDates)
    return [...new Set(parts.filter((part) => /^\d{4}-\d{2}-\d{2}$/u.test(part)))].sort();
  const numbers = parts.map(Number).filter((number) => Number.isFinite(number));
  return [...new Set(numbers)].sort((x, y) => x - y);
}

/**
 * Bands that begin at rising limits, named by what falls into them. Numbers below the first limit fall into
 * none; days before the first are a band too.
 */
export function bandsFrom(limits: readonly (number | string)[]): Band[] {
  const whole = limits.every((limit) => Number.isInteger(limit));
  const bands = limits.map((from, b): Band => {
    const next = limits[b + 1];
    if (typeof from === 'string')
      return { from, label: next === undefined ? `from ${from}` : bandsTexts.before(from, next) };
    if (next === undefined) return { from, label: bandsTexts.over(from) };
    if (!whole) return { from, label: bandsTexts.under(from, next) };
    const last = Number(next) - 1;
    return { from, label: last === from ? String(from) : `${from}–${last}` };
  });
  return typeof limits[0] === 'string'
    ? [{ from: null, label: `before ${limits[0]}` }, ...bands]
    : bands;
}
