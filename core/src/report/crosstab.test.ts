import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apiSample, checkValue } from '../../test/checkValues.js';
import { addTo, countOf, emptyBitset, fullBitset, has, type Bitset } from '../groups/index.js';
import {
  acrossQuestions,
  countCrosstab,
  rollUp,
  rowOfMentions,
  type BaseKind,
  type CrosstabRow,
} from './crosstab.js';

const setOf = (size: number, members: Iterable<number>): Bitset => {
  const set = emptyBitset(size);
  for (const i of members) addTo(set, i);
  return set;
};
const rowOf = (
  size: number,
  key: string,
  mentions: number[],
  decided = fullBitset(size),
): CrosstabRow => rowOfMentions(key, [Int32Array.from(mentions)], decided, size);

describe('countCrosstab', () => {
  // ten asked, 0–7 answered, 0–5 settled; 0 mentions the code twice, 6 only in an open answer
  const code = rowOf(10, 'cost', [0, 0, 1, 6], setOf(10, [0, 1, 2, 3, 4, 5]));
  const count = (base: BaseKind) =>
    countCrosstab({
      rows: [code],
      columns: [
        { key: 'total', members: fullBitset(10) },
        { key: 'nobody', members: emptyBitset(10) },
      ],
      asked: fullBitset(10),
      answered: setOf(10, [0, 1, 2, 3, 4, 5, 6, 7]),
      weights: null,
      base,
    })[0]!;

  test('counts a person once, every mention, and only where the answer is settled', () => {
    expect(count('settled')[0]).toMatchObject({ people: 2, mentions: 3, share: 2 / 6 });
  });

  test('percentages are out of the base asked for', () => {
    expect(count('answered')[0]).toMatchObject({ share: 2 / 8, base: { people: 8 } });
    expect(count('asked')[0]).toMatchObject({ share: 2 / 10, base: { people: 10 } });
  });

  test('an empty base gives no percentage rather than zero', () => {
    expect(count('settled')[1]).toMatchObject({ people: 0, share: null, interval: null });
  });

  test('a theme counts a person once, however many of its codes are mentioned', () => {
    const theme = rollUp('price', [rowOf(6, 'fares', [0, 1, 1]), rowOf(6, 'cars', [1, 2])]);
    const [cells] = countCrosstab({
      rows: [theme],
      columns: [{ key: 'total', members: fullBitset(6) }],
      asked: fullBitset(6),
      answered: fullBitset(6),
      weights: null,
      base: 'settled',
    });
    expect(cells![0]).toMatchObject({ people: 3, mentions: 5 });
    expect(() => rollUp('empty', [])).toThrow(RangeError);
  });

  test('agrees with counting person by person', () => {
    const size = 70;
    const person = fc.record({
      mentions: fc.nat(2),
      settled: fc.boolean(),
      group: fc.nat(3),
      weight: fc.integer({ min: 0, max: 4 }),
    });
    fc.assert(
      fc.property(fc.array(person, { minLength: size, maxLength: size }), (people) => {
        const of = (holds: (one: (typeof people)[number]) => boolean) =>
          setOf(
            size,
            people.flatMap((one, i) => (holds(one) ? [i] : [])),
          );
        const mentions = people.flatMap((one, i) => new Array<number>(one.mentions).fill(i));
        const [cells] = countCrosstab({
          rows: [
            rowOf(
              size,
              'code',
              mentions,
              of((one) => one.settled),
            ),
          ],
          columns: [0, 1, 2, 3].map((g) => ({
            key: String(g),
            members: of((one) => one.group === g),
          })),
          asked: fullBitset(size),
          answered: fullBitset(size),
          weights: Float64Array.from(people, (one) => one.weight),
          base: 'settled',
        });
        cells!.forEach((cell, g) => {
          const inCell = people.filter((one) => one.group === g && one.settled);
          const mentioning = inCell.filter((one) => one.mentions > 0);
          const sum = (all: typeof people) => all.reduce((total, one) => total + one.weight, 0);
          expect(cell.people).toBe(mentioning.length);
          expect(cell.mentions).toBe(inCell.reduce((total, one) => total + one.mentions, 0));
          expect(cell.base.people).toBe(inCell.length);
          expect(cell.weighted).toBe(sum(mentioning));
          expect(cell.share).toBe(sum(inCell) > 0 ? sum(mentioning) / sum(inCell) : null);
        });
      }),
    );
  });
});

describe('weighted shares (R survey, data(api): check values 3.2, 3.3, 3.6)', () => {
  const schools = apiSample();
  const size = schools.length;
  const where = (column: string, value: string) =>
    schools.flatMap((school, i) => (school[column] === value ? [i] : []));
  const table = (column: string) =>
    countCrosstab({
      rows: [rowOf(size, column, where(column, '1'))],
      columns: [
        { key: 'total', members: fullBitset(size) },
        ...['E', 'H', 'M'].map((key) => ({ key, members: setOf(size, where('stype', key)) })),
      ],
      asked: fullBitset(size),
      answered: fullBitset(size),
      weights: Float64Array.from(schools, (school) => Number(school['pw'])),
      base: 'asked',
    })[0]!;

  test('shares in total and by group', () => {
    type Total = {
      weighted_counts: Record<string, number>;
      weights_only: Record<string, { p: number }>;
    };
    type ByGroup = {
      weights_only: { by_stype: Record<string, Record<string, { p: number }>> };
    };
    const total = checkValue<unknown, Total>('3.2').expected;
    const byType = checkValue<unknown, ByGroup>('3.3').expected.weights_only.by_stype;
    for (const column of ['sch_wide', 'comp_imp', 'awards', 'yr_rnd']) {
      const [all, ...groups] = table(column);
      expect(all!.share).toBeCloseTo(total.weights_only[column]!.p, 9);
      expect(all!.weighted).toBeCloseTo(total.weighted_counts[column]!, 5);
      ['E', 'H', 'M'].forEach((key, g) =>
        expect(groups[g]!.share).toBeCloseTo(byType[column]![key]!.p, 9),
      );
    }
  });

  test('the interval is Wilson’s at the effective base', () => {
    type Expected = { wilson_with_n_eff: [number, number] };
    const { wilson_with_n_eff } = checkValue<unknown, Expected>('3.6').expected;
    expect(table('awards')[0]!.interval).toEqual(
      wilson_with_n_eff.map((bound) => expect.closeTo(bound, 9)),
    );
  });
});

test('sets of respondents behave as sets', () => {
  const members = fc.uniqueArray(fc.nat(199));
  fc.assert(
    fc.property(members, (inside) => {
      const set = setOf(200, inside);
      expect(countOf(set)).toBe(inside.length);
      for (let i = 0; i < 200; i++) expect(has(set, i)).toBe(inside.includes(i));
    }),
  );
  for (const size of [0, 1, 31, 32, 33, 100]) expect(countOf(fullBitset(size))).toBe(size);
});

test('across questions: a person counts once, and only where all that they answered is decided', () => {
  const size = 5;
  // person 0 mentions it in both, 1 in the second, 2 is open in the second, 3 answered the first only
  const across = acrossQuestions('code', [
    {
      row: rowOf(size, 'code', [0, 0, 2, 4], setOf(size, [0, 1, 2, 3])),
      answered: setOf(size, [0, 1, 2, 3]),
    },
    { row: rowOf(size, 'code', [0, 1], setOf(size, [0, 1])), answered: setOf(size, [0, 1, 2]) },
  ]);
  const [cells] = countCrosstab({
    rows: [across],
    columns: [{ key: 'total', members: fullBitset(size) }],
    asked: fullBitset(size),
    answered: setOf(size, [0, 1, 2, 3]),
    weights: null,
    base: 'settled',
  });
  expect(cells![0]).toMatchObject({ people: 2, mentions: 4, base: { people: 3 } });
});

test('percent of mentions: of everything that is mentioned, whatever rows are shown', () => {
  const size = 4;
  const decided = setOf(size, [0, 1, 2]);
  const codes = [rowOf(size, 'a', [0, 0, 1, 3], decided), rowOf(size, 'b', [0], decided)];
  const [cells] = countCrosstab({
    rows: codes.slice(0, 1),
    codes,
    columns: [{ key: 'total', members: fullBitset(size) }],
    asked: fullBitset(size),
    answered: fullBitset(size),
    weights: Float64Array.of(2, 1, 1, 1),
    base: 'mentions',
  });
  // 0 counts twice over in weight: (2 + 2 + 1) of those and 2 of the other code
  expect(cells![0]).toMatchObject({
    share: 5 / 7,
    mentions: 3,
    interval: null,
    base: { people: 4 },
  });
});

test('weights of 1 change nothing, and neither does the order of respondents', () => {
  const size = 40;
  fc.assert(
    fc.property(
      fc.array(fc.record({ at: fc.nat(size - 1), code: fc.nat(2) }), { maxLength: 60 }),
      fc.uniqueArray(fc.nat(size - 1)),
      (mentions, settled) => {
        const table = (place: (i: number) => number, weights: Float64Array | null) =>
          countCrosstab({
            rows: [0, 1, 2].map((code) =>
              rowOf(
                size,
                String(code),
                mentions.filter((one) => one.code === code).map(({ at }) => place(at)),
                setOf(size, settled.map(place)),
              ),
            ),
            columns: [
              { key: 'total', members: fullBitset(size) },
              {
                key: 'half',
                members: setOf(
                  size,
                  Array.from({ length: 20 }, (_, i) => place(i)),
                ),
              },
            ],
            asked: fullBitset(size),
            answered: fullBitset(size),
            weights,
            base: 'settled',
          });
        const plain = table((i) => i, null);
        expect(table((i) => i, new Float64Array(size).fill(1))).toEqual(plain);
        expect(table((i) => (i * 7 + 3) % size, null)).toEqual(plain);
        // a theme has at least the people of its largest code and at most the sum of all
        const rows = [0, 1, 2].map((code) =>
          rowOf(
            size,
            String(code),
            mentions.filter((one) => one.code === code).map(({ at }) => at),
            setOf(size, settled),
          ),
        );
        const people = plain.map((cells) => cells[0]!.people);
        const theme = countCrosstab({
          rows: [rollUp('theme', rows)],
          columns: [{ key: 'total', members: fullBitset(size) }],
          asked: fullBitset(size),
          answered: fullBitset(size),
          weights: null,
          base: 'settled',
        })[0]![0]!.people;
        expect(theme).toBeGreaterThanOrEqual(Math.max(...people));
        expect(theme).toBeLessThanOrEqual(people.reduce((sum, one) => sum + one, 0));
      },
    ),
  );
});
