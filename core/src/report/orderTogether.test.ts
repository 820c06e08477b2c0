import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { orderTogether } from './orderTogether.js';

test('what is alike stands together, and everything stands somewhere', () => {
  // two chains, mixed: 0–2–4 and 1–3
  const alike = new Map([
    ['0 2', 0.9],
    ['2 4', 0.8],
    ['1 3', 0.7],
  ]);
  const likeness = Array.from({ length: 5 }, (_, i) =>
    Array.from({ length: 5 }, (_, j) => alike.get([i, j].toSorted().join(' ')) ?? 0),
  );
  const order = orderTogether(likeness).join('');
  expect(order).toMatch(/024|420/);
  expect(order).toMatch(/13|31/);
  const square = fc.integer({ min: 0, max: 12 }).chain((size) =>
    fc.array(
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: size, maxLength: size }),
      {
        minLength: size,
        maxLength: size,
      },
    ),
  );
  fc.assert(
    fc.property(square, (given) => {
      const symmetric = given.map((row, i) =>
        row.map((_, j) => Math.max(given[i]![j]!, given[j]![i]!)),
      );
      expect(orderTogether(symmetric).toSorted((x, y) => x - y)).toEqual([...given.keys()]);
    }),
  );
});
