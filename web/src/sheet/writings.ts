import type { ColumnSetting, Writing } from '@yellow-thread/contract';
import { writingsFor } from '@yellow-thread/core/sheet';
import { writingsTexts } from './texts.js';

const names: Record<'number' | 'date', Partial<Record<Writing, string>>> = {
  number: {
    '': writingsTexts.n4545,
    comma_groups: '45,000 is 45 thousand',
    point_groups: '45.000 is 45 thousand',
  },
  date: { '': writingsTexts.dayComesFirst, month_first: writingsTexts.monthComesFirst },
};

/** In which ways a column may be read, by what it is and its first values; none where there is just one. */
export function writingsOf(
  { role, writing }: ColumnSetting,
  values: readonly string[],
): { writing: Writing; name: string }[] {
  if (role !== 'number' && role !== 'weight' && role !== 'date') return [];
  const kind = role === 'date' ? role : 'number';
  const ways = new Set([...writingsFor(kind, values), writing]);
  return ways.size < 2
    ? []
    : [...ways].map((way) => ({ writing: way, name: names[kind][way] ?? '' }));
}
