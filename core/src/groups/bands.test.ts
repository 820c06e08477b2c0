import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bandOf, bandsFrom, parseLimits } from './bands.js';

test('makes bands of typed limits and names them by what falls into them', () => {
  const labels = (typed: string, areDates = false) =>
    bandsFrom(parseLimits(typed, areDates)).map((band) => band.label);
  expect(labels('9, 0 7; 7, x')).toEqual(['0–6', '7–8', '9 and over']);
  expect(labels('1, 2')).toEqual(['1', '2 and over']);
  expect(labels('0.5, 1')).toEqual(['0.5 to under 1', '1 and over']);
  expect(labels('2026-07-01, 2026-04-01, soon', true)).toEqual([
    'before 2026-04-01',
    '2026-04-01 to before 2026-07-01',
    'from 2026-07-01',
  ]);
  expect(labels('')).toEqual([]);
});

test('a value falls into the last band whose limit it reaches, and into one at the most', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: -50, max: 50 }), { minLength: 1 }),
      fc.integer({ min: -60, max: 60 }),
      (limits, value) => {
        const rising = limits.toSorted((x, y) => x - y);
        const band = bandOf(bandsFrom(rising), value);
        const reached = rising.filter((limit) => limit <= value);
        expect(band?.from ?? null).toBe(reached.at(-1) ?? null);
      },
    ),
  );
  const days = bandsFrom(['2026-04-01']);
  expect(['2026-03-31', '2026-04-01', null, 5].map((day) => bandOf(days, day)?.label)).toEqual([
    'before 2026-04-01',
    'from 2026-04-01',
    undefined,
    undefined,
  ]);
});
