import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { editDistance } from '../text/index.js';
import { matchIds } from './matchIds.js';
import { planIds } from './respondentIds.js';

const written = fc.string({ unit: fc.constantFrom('a', 'B', '0', '1', '-', ' '), maxLength: 6 });

test('ids of rows that are imported are all different, whatever repeats, is blank or known', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(written, fc.constantFrom('', 'a', 'a (2)', 'row 3'))),
      fc.array(fc.constantFrom<string>('a', 'B0', 'a (2)')),
      fc.constantFrom('first' as const, 'last' as const, 'suffix' as const),
      (ids, known, choice) => {
        const plan = planIds(true, new Set(known));
        for (const [i, id] of ids.entries()) plan.add(i + 2, id);
        const { skipped, renamed, known: found } = plan.settle(choice);
        const called = new Map(renamed);
        const kept = ids.flatMap((id, i) =>
          skipped.includes(i + 2) ? [] : [called.get(i + 2) ?? id],
        );
        expect(new Set(kept).size).toBe(kept.length);
        expect(kept.some((id) => id === '' || known.includes(id))).toBe(false);
        // every id is there in some row, or known
        const sheetIds = ids.map((id, i) => id || `row ${i + 2}`);
        for (const id of sheetIds) expect(kept.includes(id) || known.includes(id)).toBe(true);
        expect(found.count).toBe(sheetIds.filter((id) => known.includes(id)).length);
      },
    ),
  );
});

test('proposes each id once, and by one character only what is one apart, as trying all pairs would', () => {
  const list = fc.uniqueArray(written, { maxLength: 12 });
  fc.assert(
    fc.property(list, list, (unknown, free) => {
      const proposals = matchIds(unknown, free);
      for (const side of ['from', 'to'] as const) {
        const ids = proposals.map((one) => one[side]);
        expect(new Set(ids).size).toBe(ids.length);
      }
      const fold = (id: string) => id.toLowerCase().replaceAll(' ', '');
      for (const { from, to, why } of proposals)
        if (why === 'case or white space') expect(fold(from)).toBe(fold(to));
        else if (why === 'one character')
          expect(editDistance(fold(from), fold(to), 3)).toBeLessThanOrEqual(1);
      // who is left over has no single neighbour of its own among those left over
      const open = unknown.filter((id) => !proposals.some((one) => one.from === id));
      const left = free.filter((id) => !proposals.some((one) => one.to === id));
      const near = (x: string, y: string) =>
        Math.min(fold(x).length, fold(y).length) >= 4 && editDistance(fold(x), fold(y), 1) <= 1;
      const taken = free.filter((id) => !left.includes(id));
      for (const from of open) {
        const neighbours = left.filter((to) => near(from, to));
        const rivals = neighbours.flatMap((to) =>
          unknown.filter((id) => id !== from && near(id, to)),
        );
        const others = taken.filter((to) => near(from, to));
        expect(neighbours.length !== 1 || rivals.length > 0 || others.length > 0).toBe(true);
      }
    }),
  );
});
