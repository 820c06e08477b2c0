import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue, countedGroup, schoolsAsGroup } from '../../test/checkValues.js';
import { compareGroups, compareWithRest, exceededColumns, listTests } from './compare.js';
import { togetherness } from './together.js';

test('column letters: pairs without correction as in a survey table (R: check value 2.10)', () => {
  const { input, expected } = checkValue<
    { counts: number[][]; bases: number[] },
    { no_adjustment_letters: string[][] }
  >('2.10');
  const letters = input.counts.map((row) =>
    exceededColumns(
      row.map((count, c) => countedGroup(count, input.bases[c]!)),
      { correction: 'none' },
    ).map((places) => places.map((place) => 'ABC'[place]).join('')),
  );
  expect(letters).toEqual(expected.no_adjustment_letters);
});

const group = fc
  .record({
    people: fc.integer({ min: 5, max: 400 }),
    part: fc.double({ min: 0, max: 1, noNaN: true }),
  })
  .map(({ people, part }) => countedGroup(Math.round(part * people), people));

test('a correction takes letters away and never gives one; what is not compared gives and gets none', () => {
  fc.assert(
    fc.property(fc.array(fc.option(group), { minLength: 2, maxLength: 6 }), (cells) => {
      const plain = exceededColumns(cells, { correction: 'none' });
      for (const correction of ['holm', 'benjamini_hochberg'] as const)
        exceededColumns(cells, { correction }).forEach((places, c) => {
          for (const place of places) expect(plain[c]).toContain(place);
        });
      const share = (c: number) => cells[c]!.mentioning / cells[c]!.people;
      plain.forEach((places, c) => {
        for (const place of places) {
          expect(share(c)).toBeGreaterThan(share(place));
          expect(plain[place]).not.toContain(c);
        }
      });
      expect(exceededColumns(cells, { correction: 'none' }, () => false).flat()).toEqual([]);
    }),
  );
});

test('the listed tests are those behind the letters and marks, with every figure', () => {
  fc.assert(
    fc.property(
      fc.array(fc.option(group), { minLength: 2, maxLength: 5 }),
      fc.constantFrom('none', 'holm', 'benjamini_hochberg'),
      fc.boolean(),
      (cells, correction, isWeighted) => {
        const options = { correction, isWeighted } as const;
        const letters = exceededColumns(cells, options);
        for (const { one, other, value, corrected, interval, p } of listTests(
          cells,
          null,
          options,
        )) {
          const isLettered = letters[one]!.includes(other!) || letters[other!]!.includes(one);
          expect(isLettered).toBe(corrected < 0.05);
          expect(corrected).toBeGreaterThanOrEqual(p - 1e-12);
          expect(value).toBeGreaterThanOrEqual(interval[0] - 1e-9);
          expect(value).toBeLessThanOrEqual(interval[1] + 1e-9);
        }
        const known = cells.filter((cell) => cell !== null);
        const sum = (of: 'people' | 'mentioning') => known.reduce((all, cell) => all + cell[of], 0);
        const all = countedGroup(sum('mentioning'), sum('people'));
        const marks = compareWithRest(cells, all, options);
        for (const { one, corrected } of listTests(cells, all, options))
          expect(marks[one] !== null).toBe(corrected < 0.05);
      },
    ),
    // none and all of it: no variance to correct a weighted test by
    { examples: [[[countedGroup(0, 8), countedGroup(8, 8)], 'none', true]] },
  );
});

test('of two groups that are everybody, each is to the other as to the rest', () => {
  fc.assert(
    fc.property(group, group, (one, other) => {
      const all = countedGroup(one.mentioning + other.mentioning, one.people + other.people);
      const options = { correction: 'none', level: 0.9 } as const;
      const [first, second] = compareWithRest([one, other], all, options);
      const [places] = exceededColumns([one, other], options);
      expect(first === 'higher').toBe(places!.length > 0);
      expect(first === 'higher').toBe(second === 'lower');
    }),
  );
});

test('weighted: the difference of two groups, and its Rao–Scott test (R survey: check values 3.4, 3.5)', () => {
  const compare = (column: string) =>
    compareGroups(schoolsAsGroup('yr_rnd', '1', column), schoolsAsGroup('yr_rnd', '0', column), {
      isWeighted: true,
    });
  const { diff } = checkValue<unknown, { weights_only: { diff: number } }>('3.5').expected
    .weights_only;
  expect(compare('sch_wide').value).toBeCloseTo(diff, 9);
  type Expected = {
    weights_only: { awards_by_yr_rnd: { F_rao_scott_second_order: { p: number } } };
  };
  const { p } = checkValue<unknown, Expected>('3.4').expected.weights_only.awards_by_yr_rnd
    .F_rao_scott_second_order;
  expect(compare('awards')).toMatchObject({ test: 'rao_scott', p: expect.closeTo(p, 11) });
});

test('codes together: counts, Jaccard, phi and lift (R by the published formulas: check value 5.15)', () => {
  type Row = Record<'jaccard' | 'phi' | 'lift', number> &
    Record<'n_ab' | 'n_a' | 'n_b' | 'n', number>;
  for (const right of checkValue<unknown, Row[]>('5.15').expected) {
    const found = togetherness(right.n_ab, right.n_a, right.n_b, right.n);
    for (const key of ['jaccard', 'phi', 'lift'] as const)
      expect(found[key]).toBeCloseTo(right[key], 10);
  }
  expect(togetherness(0, 0, 4, 9)).toEqual({ both: 0, jaccard: 0, phi: null, lift: null });
});
