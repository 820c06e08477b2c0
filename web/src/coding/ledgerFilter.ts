import { ledgerQuery, type LedgerQuery } from '@yellow-thread/contract';
import { useCallback, useMemo } from 'react';
import { useAddress } from '../frame/address.js';

/** The parts of the address that choose answers; the API takes the same. */
const parts = [
  'show',
  'words',
  'match',
  'all',
  'any',
  'none',
  'together',
  'among',
  'coder',
  'assigned',
  'where',
  'like',
  'about',
  'cluster',
  'order',
  'code',
  'seed',
  'same',
] as const;
const nothingChosen = ledgerQuery.parse({});

/** Parts of the filter with what they become; undefined takes one off. */
export type FilterChange = { [Part in keyof LedgerQuery]?: LedgerQuery[Part] | undefined };

export interface LedgerFilter extends LedgerQuery {
  /** The query that the API is asked with. */
  query: string;
  /** How many things narrow the list beside what it shows and the words. */
  narrowed: number;
}

/** What draws the filter and changes it. */
export interface FilterProps {
  filter: LedgerFilter;
  onFilter: (change: FilterChange) => void;
}

/** The part of an address that chooses answers. */
export const ledgerQueryIn = (search: URLSearchParams): string =>
  parts
    .flatMap((part) => search.getAll(part).map((value) => [part, value] as [string, string]))
    .map((pair) => pair.map(encodeURIComponent).join('='))
    .join('&');

/** How the answers are chosen, as it stands in the address. */
export function useLedgerFilter(): [LedgerFilter, (change: FilterChange) => void] {
  const [search, changeAddress] = useAddress();
  const query = ledgerQueryIn(search);
  const filter = useMemo(() => readFilter(query), [query]);
  const change = useCallback(
    (changes: FilterChange) => changeAddress((before) => writeFilter(before, changes)),
    [changeAddress],
  );
  return [filter, change];
}

/** The filter of an address; one that chooses nothing where the address makes no sense. */
export function readFilter(query: string): LedgerFilter {
  const search = new URLSearchParams(query);
  const where = search.getAll('where');
  const single = Object.fromEntries([...search].filter(([part]) => part !== 'where'));
  const parsed = ledgerQuery.safeParse({ ...single, ...(where.length > 0 && { where }) });
  const chosen = parsed.success ? parsed.data : nothingChosen;
  const { all, any, none, coder, assigned, like, about, cluster, same } = chosen;
  const narrowed =
    all.length +
    any.length +
    none.length +
    chosen.where.length +
    chosen.among.length +
    (coder === undefined ? 0 : 1) +
    (assigned === undefined ? 0 : 1) +
    (like === undefined ? 0 : 1) +
    (about === undefined ? 0 : 1) +
    (cluster === undefined ? 0 : 1) +
    (same === 'apart' ? 1 : 0);
  return { ...chosen, query: parsed.success ? query : '', narrowed };
}

/** Changes parts of the filter in an address and leaves the rest of it as it is; defaults are not written out. */
export function writeFilter(search: URLSearchParams, changes: FilterChange): URLSearchParams {
  for (const part of parts) {
    if (!(part in changes)) continue;
    search.delete(part);
    if (part === 'where')
      for (const { variableId, value } of changes.where ?? [])
        search.append('where', `${variableId}:${value}`);
    else {
      const value = changes[part];
      const isDefault = value === undefined || String(value) === String(nothingChosen[part]);
      if (!isDefault) search.set(part, Array.isArray(value) ? value.join(',') : String(value));
    }
  }
  return search;
}
