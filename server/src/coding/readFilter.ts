import { ledgerQuery, type LedgerQuery } from '@yellow-thread/contract';
import { problems } from '../wording/problems.js';

/** The ledger's filter as it stands in an address; null for none. @throws Problem wrong_scope where it cannot be read */
export function readFilter(text: string): LedgerQuery | null {
  if (text === '') return null;
  const asked: Record<string, string | string[]> = {};
  const address = new URLSearchParams(text);
  for (const key of new Set(address.keys())) {
    const values = address.getAll(key);
    asked[key] = values.length > 1 ? values : values[0]!;
  }
  const query = ledgerQuery.safeParse(asked);
  if (!query.success) throw problems.wrongScope();
  return query.data;
}
