import { expect, test } from '@jest/globals';
import { checkValue } from '../../test/checkValues.js';
import { adjust } from './adjust.js';
import { compareShares, fisherExact, newcombeInterval } from './proportions.js';
import { tQuantile } from './studentT.js';
import { chiSquareTail, normalTwoSided } from './tails.js';

test('difference of two shares: Newcombe’s interval and the pooled z test (Newcombe 1998, R: check value 2.2)', () => {
  type Rows = {
    [key in 'x1' | 'n1' | 'x2' | 'n2']: number;
  } & { newcombe: [number, number]; p_two_sided: number | null };
  for (const row of checkValue<unknown, Rows[]>('2.2').expected) {
    const one = { share: row.x1 / row.n1, n: row.n1 };
    const other = { share: row.x2 / row.n2, n: row.n2 };
    newcombeInterval(one, other).forEach((end, i) => expect(end).toBeCloseTo(row.newcombe[i]!, 10));
    const compared = compareShares(one, other);
    expect(compared.p).toBeLessThanOrEqual(1);
    if (compared.test === 'z') expect(compared.p).toBeCloseTo(row.p_two_sided!, 10);
  }
});

test('Fisher’s exact test (Fisher 1935, R fisher.test: check values 2.5 and 2.6)', () => {
  const tea = checkValue<unknown, { p_two_sided: number }>('2.6').expected;
  expect(fisherExact(3, 4, 1, 4)).toBeCloseTo(tea.p_two_sided, 10);
  const own = checkValue<unknown, { fisher_p: number }>('2.5').expected;
  expect(fisherExact(10, 30, 30, 45)).toBeCloseTo(own.fisher_p, 10);
  // an expected count below 5 calls for it
  expect(compareShares({ share: 0.75, n: 4 }, { share: 0.25, n: 4 })).toMatchObject({
    test: 'fisher',
    p: expect.closeTo(tea.p_two_sided, 10),
  });
});

test('tails of the normal and chi-square distributions (R: check values 2.2, 2.4; R 4.2.2 qchisq, qnorm)', () => {
  const { chisq, df, p } = checkValue<unknown, { chisq: number; df: number; p: number }>(
    '2.4',
  ).expected;
  expect(chiSquareTail(chisq, df)).toBeCloseTo(p, 14);
  expect(chiSquareTail(3.841458820694124, 1)).toBeCloseTo(0.05, 12);
  expect(chiSquareTail(18.307038053275146, 10)).toBeCloseTo(0.05, 12);
  expect(normalTwoSided(1.959963984540054)).toBeCloseTo(0.05, 12);
  expect(normalTwoSided(-2.65017195126)).toBeCloseTo(0.0080450813682, 10);
  expect(normalTwoSided(0)).toBe(1);
});

test('quantiles of Student’s t (NIST/SEMATECH e-Handbook of Statistical Methods, table 1.3.6.7.2)', () => {
  for (const [p, degrees, expected] of [
    [0.975, 1, 12.706],
    [0.975, 10, 2.228],
    [0.975, 30, 2.042],
    [0.975, 100, 1.984],
    [0.9, 5, 1.476],
    [0.999, 5, 5.893],
  ] as const)
    expect(tQuantile(p, degrees)).toBeCloseTo(expected, 3);
});

test('corrections for many tests (Holm 1979; Benjamini & Hochberg 1995; R p.adjust: check value 2.9)', () => {
  type Adjusted = Record<'holm' | 'BH', (number | null)[]>;
  const { input, expected } = checkValue<
    { bh1995: number[]; unsorted_with_tie_and_NA: (number | null)[] },
    { bh1995: Adjusted; unsorted: Adjusted }
  >('2.9');
  const known = (values: (number | null)[]) => values.filter((value) => value !== null);
  for (const [p, right] of [
    [input.bh1995, expected.bh1995],
    [known(input.unsorted_with_tie_and_NA), expected.unsorted],
  ] as const) {
    adjust(p, 'holm').forEach((value, i) => expect(value).toBeCloseTo(known(right.holm)[i]!, 10));
    adjust(p, 'benjamini_hochberg').forEach((value, i) =>
      expect(value).toBeCloseTo(known(right.BH)[i]!, 10),
    );
  }
});
