import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pairTable } from './pairTable.js';

test('pairs are found again, however many there are, and only those', () => {
  const number = fc.nat(60);
  fc.assert(
    fc.property(fc.array(fc.tuple(number, number), { maxLength: 2000 }), (pairs) => {
      const table = pairTable();
      const expected = new Map<string, number>();
      pairs.forEach(([first, second], value) => {
        if (table.get(first, second) !== -1) return;
        table.add(first, second, value);
        expected.set(`${first} ${second}`, value);
      });
      for (let first = 0; first <= 60; first++)
        for (let second = 0; second <= 60; second++)
          expect(table.get(first, second)).toBe(expected.get(`${first} ${second}`) ?? -1);
      const told = new Map<string, number>();
      table.forEach((first, second, value) => told.set(`${first} ${second}`, value));
      expect(told).toEqual(expected);
    }),
    { numRuns: 20 },
  );
});
