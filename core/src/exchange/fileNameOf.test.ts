import { expect, test } from '@jest/globals';
import { fileNameOf } from './fileNameOf.js';

test('a file is named by study, content and date', () => {
  const named = (...parts: string[]) => fileNameOf(parts, '2026-11-29', 'xlsx');
  expect(named('Ferry 2026', 'table', 'Improve', 'by Home')).toBe(
    'ferry-2026_table_improve_by-home_2026-11-29.xlsx',
  );
  expect(named('Crèche & café?', 'table', '')).toBe('creche-cafe_table_2026-11-29.xlsx');
  expect(named('乗客 2026', '../../etc')).toBe('乗客-2026_etc_2026-11-29.xlsx');
  expect(named('a'.repeat(300)).length).toBeLessThan(80);
});
