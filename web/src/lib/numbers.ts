import { decimalsOf, fittingDecimals, type Decimals } from '@yellow-thread/core/report';

const whole = new Intl.NumberFormat();
const twoPlaces = new Intl.NumberFormat(undefined, {
  minimumFractionDigits: 2,
  maximumFractionDigits: 2,
});

const percent = (digits: number) =>
  new Intl.NumberFormat(undefined, {
    style: 'percent',
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
const percents = [percent(0), percent(1), percent(2)];

export const asCount = (value: number): string => whole.format(value);
/** A probability or share between 0 and 1, as such. */
export const asShare = (value: number): string => twoPlaces.format(value);

type Interval = readonly [low: number, high: number];
/** Whether a measured share is out of nothing at all: then its interval says as much. */
export const isOfNothing = ([low, high]: Interval): boolean => low === 0 && high === 1;
/** A measured share with its interval: "0.83 (0.61–0.95)". */
export const asMeasured = (value: number, interval: Interval): string =>
  isOfNothing(interval) ? '–' : `${asShare(value)} (${interval.map(asShare).join('–')})`;

/** A share as a percentage: no decimals on a base under 100 and one above, unless so many were chosen. */
export const asPercent = (share: number, base: number, decimals: Decimals = 'fitting'): string =>
  percents[decimalsOf(decimals, fittingDecimals(base))]!.format(share);

export const asDate = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(
    new Date(iso),
  );

const days = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeZone: 'UTC' });
/** A day without a time, given as "2026-11-29": "29 Nov 2026". */
export const asDay = (iso: string): string =>
  /^\d{4}-\d{2}-\d{2}$/u.test(iso) ? days.format(new Date(`${iso}T00:00:00Z`)) : iso;

const exact = new Intl.NumberFormat(undefined, { maximumFractionDigits: 6 });
/** A number as it was stated, with the locale's separators: "45,000", "0.725". */
export const asNumber = (value: number): string => exact.format(value);

const lists = new Intl.ListFormat(undefined, { type: 'conjunction' });
/** "Ana, Ben and Cora". */
export const asList = (names: readonly string[]): string => lists.format(names);

const choices = new Intl.ListFormat(undefined, { type: 'disjunction' });
/** "Ana, Ben or Cora". */
export const asChoice = (names: readonly string[]): string => choices.format(names);

const plurals = new Intl.PluralRules('en');
/** Which of two forms goes with a number: "is", "are". */
export const plural = (count: number, one: string, many: string): string =>
  plurals.select(count) === 'one' ? one : many;

/** "1 answer", "2 answers". */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${asCount(count)} ${plural(count, one, many)}`;

const sizes = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1 });
/** The size of a file: "340 kB", "12.5 MB". */
export const asSize = (bytes: number): string =>
  bytes < 1_000_000
    ? `${whole.format(Math.max(1, Math.round(bytes / 1000)))} kB`
    : `${sizes.format(bytes / 1_000_000)} MB`;

const points = (digits: number) =>
  new Intl.NumberFormat(undefined, {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
    signDisplay: 'exceptZero',
  });
const signed = [points(0), points(1), points(2)];
/** A difference of shares in percentage points: "+4.2". */
export const asPoints = (difference: number, decimals: Decimals = 'fitting'): string =>
  signed[decimalsOf(decimals, 1)]!.format(100 * difference);

/** A probability of a test: "0.012", "< 0.001". */
export const asP = (p: number): string => (p < 0.001 ? '< 0.001' : p.toFixed(3));

const oneDecimal = new Intl.NumberFormat(undefined, {
  minimumFractionDigits: 1,
  maximumFractionDigits: 1,
});
/** A sum of weights: "12.4". */
export const asWeighted = (sum: number): string => oneDecimal.format(sum);

/** Mentions per person. */
export const asMean = (value: number): string => twoPlaces.format(value);
