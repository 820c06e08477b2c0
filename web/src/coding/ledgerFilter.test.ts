import { expect, test } from '@jest/globals';
import {
  ledgerOrderSchema,
  ledgerQuery,
  ledgerShowSchema,
  wordMatchSchema,
} from '@yellow-thread/contract';
import fc from 'fast-check';
import { ledgerQueryIn, readFilter, writeFilter, type LedgerFilter } from './ledgerFilter.js';

const ids = fc.uniqueArray(fc.uuid(), { maxLength: 3 });
const id = fc.integer({ min: 1, max: 1_000_000 });
const words = fc.string({ unit: 'grapheme', maxLength: 40 });
const chosen = fc.record({
  show: fc.constantFrom(...ledgerShowSchema.options),
  words,
  match: fc.constantFrom(...wordMatchSchema.options),
  all: ids,
  any: ids,
  none: ids,
  among: ids,
  together: fc.constantFrom('answer' as const, 'line' as const),
  coder: fc.option(id, { nil: undefined }),
  where: fc.array(fc.record({ variableId: id, value: words }), { maxLength: 3 }),
  about: fc.option(fc.uuid(), { nil: undefined }),
  cluster: fc.option(fc.uuid(), { nil: undefined }),
  like: fc.option(id, { nil: undefined }),
  order: fc.constantFrom(...ledgerOrderSchema.options),
  seed: fc.nat(1_000_000),
  same: fc.constantFrom('joined' as const, 'apart' as const),
});

test('a filter that stands in an address is read from it as it was chosen', () => {
  fc.assert(
    fc.property(chosen, (filter) => {
      const search = writeFilter(new URLSearchParams('group=g&theirs=kept'), filter);
      const query = ledgerQueryIn(search);
      const narrowed: unknown = expect.any(Number);
      expect(readFilter(query)).toEqual({ ...ledgerQueryOf(filter), query, narrowed });
      // what else stands in the address is left alone
      expect([search.get('group'), search.get('theirs')]).toEqual(['g', 'kept']);
      // and what was chosen last counts
      const nothing = Object.fromEntries(Object.keys(filter).map((part) => [part, undefined]));
      expect(ledgerQueryIn(writeFilter(search, nothing))).toBe('');
    }),
  );
});

/** A filter with what is not chosen as the contract has it. */
const ledgerQueryOf = (filter: Partial<LedgerFilter>) => ({
  ...ledgerQuery.parse({}),
  ...Object.fromEntries(Object.entries(filter).filter(([, value]) => value !== undefined)),
});

test('an address that makes no sense chooses nothing, and one that chooses little is short', () => {
  const all = readFilter('');
  expect(readFilter('show=everything')).toEqual(all);
  expect(readFilter('where=12')).toEqual(all);
  expect(readFilter('all=not-a-code')).toEqual(all);
  const search = writeFilter(new URLSearchParams(), { show: 'all', words: '', order: 'imported' });
  expect(search.toString()).toBe('');
});

test('what narrows the list is counted, each thing once', () => {
  const code = '0b6f0a60-0000-4000-8000-000000000001';
  const other = '0b6f0a60-0000-4000-8000-000000000002';
  const narrowed = (query: string) => readFilter(query).narrowed;
  expect(narrowed('show=open&words=boat&order=longest')).toBe(0);
  expect(narrowed(`all=${code},${other}&none=${code}`)).toBe(3);
  expect(narrowed('where=3:Tye&where=4:&coder=2')).toBe(3);
  expect(narrowed(`like=5&same=apart&about=${code}&among=${other}`)).toBe(4);
});
