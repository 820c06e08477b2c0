import { reportQuery, type ReportQuery, type Variable } from '@yellow-thread/contract';
import { useAddress } from '../frame/address.js';
import { barScales, cellKinds } from './texts.js';

export type CellKind = keyof typeof cellKinds;
export type BarScale = keyof typeof barScales;

/** The parts of the address that the API takes; the group that the study is restricted to goes its own way. */
const askedParts = [
  'counts',
  'by',
  'groups',
  'questions',
  'base',
  'weighted',
  'test',
  'level',
  'against',
  'rows',
  'chosen',
  'order',
  'difference',
  'estimated',
  'decimals',
  'empty',
] as const;
type Part =
  (typeof askedParts)[number] | 'cells' | 'bars' | 'interval' | 'low' | 'lowest' | 'folded';

/** A table as it stands in the address: what is asked of the server, and how it is drawn. */
export interface TableChoice extends ReportQuery {
  /** What the API is asked with. */
  query: string;
  cells: CellKind;
  bars: BarScale;
  interval: boolean;
  /** Figures on fewer people are set in italics, and on fewer than `lowest` in grey. */
  low: number;
  lowest: number;
  /** Ids of the themes of which the codes are not shown. */
  folded: string[];
}

export type ChangeTable = (changes: Partial<Record<Part, string | null>>) => void;

const isKey = <Keys extends object>(
  keys: Keys,
  value: string | null,
): value is keyof Keys & string => value !== null && Object.hasOwn(keys, value);

/** Figures on fewer people are marked, unless other limits are chosen. */
export const USUAL_LIMITS = { low: 30, lowest: 10 };

const limitIn = (search: URLSearchParams, part: string, usual: number) => {
  const given = Number(search.get(part) ?? usual);
  return Number.isInteger(given) && given >= 0 && given <= 1_000_000 ? given : usual;
};

/** Reads a table's choice out of an address; what makes no sense there is as if it were not there. */
export function readTableChoice(search: URLSearchParams, across: string): TableChoice {
  const given = Object.fromEntries(
    askedParts.flatMap((part) => {
      const value = search.get(part);
      return value === null ? [] : [[part, value]];
    }),
  );
  const parsed = reportQuery.safeParse({ by: across, ...given });
  const asked = parsed.success ? { by: across, ...given } : { by: across };
  const [cells, bars] = [search.get('cells'), search.get('bars')];
  return {
    ...(parsed.success ? parsed.data : reportQuery.parse({ by: across })),
    query: new URLSearchParams(asked).toString(),
    cells: isKey(cellKinds, cells) ? cells : 'percent',
    bars: isKey(barScales, bars) ? bars : 'table',
    interval: search.get('interval') === 'true',
    low: limitIn(search, 'low', USUAL_LIMITS.low),
    lowest: limitIn(search, 'lowest', USUAL_LIMITS.lowest),
    folded: search.get('folded')?.split(',').filter(Boolean) ?? [],
  };
}

/** More values than these are not put across unless that is asked for. */
const MOST_COLUMNS = 15;
export const acrossable = (variables: readonly Variable[]) =>
  variables.filter((one) => one.values <= MOST_COLUMNS);

/** How the table is chosen, as it stands in the address. */
export function useTableChoice(variables: readonly Variable[]): [TableChoice, ChangeTable] {
  const [search, changeAddress] = useAddress();
  const first = acrossable(variables)[0];
  const choice = readTableChoice(search, first ? String(first.id) : 'none');
  const change: ChangeTable = (changes) =>
    changeAddress((next) => {
      for (const [part, value] of Object.entries(changes))
        if (value === null || value === '') next.delete(part);
        else next.set(part, value);
      return next;
    });
  return [choice, change];
}
