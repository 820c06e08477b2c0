import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { partsOf, widthsOf, type TableBlock } from './wideTables.js';

const text = fc.oneof(
  fc.string({ maxLength: 30 }),
  fc.constantFrom('26% (12.4; n 14) A B', 'Islanders with a season ticket'),
);
const tables = fc.integer({ min: 1, max: 40 }).chain((columns) => {
  const line = fc.array(text, { minLength: columns + 1, maxLength: columns + 1 });
  return fc.record({
    heads: fc.array(line, { minLength: 1, maxLength: 3 }),
    rows: fc.array(fc.record({ cells: line, isHead: fc.boolean() }), { maxLength: 6 }),
  });
});

test('parts of a wide table hold every column once, beside the names of the rows, and fit the page', () => {
  fc.assert(
    fc.property(tables, fc.constantFrom(16.6, 25.3), ({ heads, rows }, room) => {
      const table: TableBlock = { kind: 'table', heads, rows, note: 'n' };
      const parts = partsOf(table, room);
      const together = (pick: (part: TableBlock) => string[]) =>
        parts.flatMap((part, p) => pick(part).slice(p === 0 ? 0 : 1));
      heads.forEach((line, h) => expect(together((part) => part.heads[h]!)).toEqual(line));
      rows.forEach(({ cells }, r) =>
        expect(together((part) => part.rows[r]!.cells)).toEqual(cells),
      );
      for (const part of parts) {
        expect(part.heads[0]![0]).toBe(heads[0]![0]);
        if (part.widths.length > 2)
          expect(part.widths.reduce((all, width) => all + width, 0)).toBeLessThanOrEqual(room);
      }
      expect(parts.map(({ note }) => note).join('')).toBe('n');
      expect(widthsOf(table)).toHaveLength(heads[0]!.length);
    }),
  );
});
