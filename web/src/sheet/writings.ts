import type { ColumnSetting, Writing } from '@yellow-thread/contract';
import { writingsFor } from '@yellow-thread/core/sheet';

const names: Record<'number' | 'date', Partial<Record<Writing, string>>> = {
  number: {
    '': '4,5 and 4.5 have decimals',
    comma_groups: '45,000 is 45 thousand',
    point_groups: '45.000 is 45 thousand',
  },
  date: { '': 'the day comes first', month_first: 'the month comes first' },
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
