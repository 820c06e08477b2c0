import type { Readable } from 'node:stream';
import { attributesOf, localName, readXml } from './xml.js';

/**
 * What a number in a cell is: a number, one that is shown with a least number of digits, a moment in days since the
 * calendar's beginning, or a span of days.
 */
export type CellKind = 'number' | `digits ${number}` | 'moment' | 'span';

/** Hundredths of a second: what is beyond them is how days are rounded. */
const DAY_HUNDREDTHS = 24 * 3600 * 100;
/** 1 January 1970, in days of the calendar that counts from 1900. */
const EPOCH_DAYS = 25_569;
const DAYS_TO_1904 = 1_462;

/** What numbers of each style of a workbook are, by the style's place. */
export async function formatsOf(styles: Readable): Promise<CellKind[]> {
  const written = new Map<number, string>();
  const kinds: CellKind[] = [];
  let isInCells = false;
  await readXml(styles, {
    open(name, attributes) {
      switch (localName(name)) {
        case 'numFmt': {
          const format = attributesOf(attributes);
          written.set(Number(format.get('numFmtId')), format.get('formatCode') ?? '');
          break;
        }
        case 'cellXfs':
          isInCells = true;
          break;
        case 'xf':
          if (isInCells) {
            const id = Number(attributesOf(attributes).get('numFmtId') ?? 0);
            const code = written.get(id);
            kinds.push(code === undefined ? builtInKind(id) : kindOf(code));
          }
      }
    },
    close(name) {
      if (localName(name) === 'cellXfs') isInCells = false;
    },
  });
  return kinds;
}

/** Formats that every program knows by number (ISO/IEC 29500-1, 18.8.30), those of East Asia among them. */
function builtInKind(id: number): CellKind {
  if (id === 46) return 'span';
  const isMoment =
    (id >= 14 && id <= 22) ||
    (id >= 27 && id <= 36) ||
    (id >= 45 && id <= 47) ||
    (id >= 50 && id <= 58);
  return isMoment ? 'moment' : 'number';
}

/** What a format shows: letters of dates and times, but for those that are quoted, escaped or give room. */
function kindOf(code: string): CellKind {
  const bare = code.replaceAll(/"[^"]*"|\\.|_.|\*./gu, '');
  if (/^0{2,}$/u.test(bare)) return `digits ${bare.length}`;
  if (/\[(?:h+|m+|s+)\]/iu.test(bare)) return 'span';
  return /[ymdhs]/iu.test(bare.replaceAll(/\[[^\]]*\]|General/giu, '')) ? 'moment' : 'number';
}

/** A number without what its writer's way of counting adds: 7 for 7.0, 1.1 for 1.1000000000000001. */
export function plainNumber(written: string): string {
  const value = Number(written);
  return written.trim() === '' || !Number.isFinite(value) ? written : String(value);
}

/** A number of a cell as a person sees it: dates as ISO 8601, spans as hours, minutes and seconds. */
export function numberText(written: string, kind: CellKind, from1904: boolean): string {
  const value = Number(written);
  if (kind === 'number' || written.trim() === '' || !Number.isFinite(value))
    return plainNumber(written);
  // an id that is shown as 00042 is called so
  if (kind.startsWith('digits '))
    return Number.isInteger(value) && value >= 0
      ? plainNumber(written).padStart(Number(kind.slice('digits '.length)), '0')
      : plainNumber(written);
  // a time of day has no day
  if (kind === 'span' || (value >= 0 && value < 1)) return clock(value);
  // the calendar that counts from 1900 has a 29 February in that year (ISO/IEC 29500-1, 18.17.4.1)
  const early = !from1904 && value < 60 ? 1 : 0;
  const days = value + early - EPOCH_DAYS + (from1904 ? DAYS_TO_1904 : 0);
  const moment = new Date(10 * Math.round(days * DAY_HUNDREDTHS));
  return Number.isNaN(moment.getTime()) ? String(value) : withoutMidnight(moment.toISOString());
}

/** A date without the time of day that nobody gave it. */
export const withoutMidnight = (moment: string): string =>
  moment.replace(/(?:T00:00:00)?(?:\.0+)?Z?$/u, '');

function clock(days: number): string {
  const seconds = Math.round(Math.abs(days) * 24 * 3600);
  const two = (n: number) => String(Math.floor(n)).padStart(2, '0');
  const sign = days < 0 ? '-' : '';
  return `${sign}${two(seconds / 3600)}:${two((seconds / 60) % 60)}:${two(seconds % 60)}`;
}
