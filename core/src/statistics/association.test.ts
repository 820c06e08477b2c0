import { expect, test } from '@jest/globals';
import { checkValue, countedGroup, schoolsAsGroup } from '../../test/checkValues.js';
import { chiSquare, isTooThin, pairEffect, raoScott } from './association.js';
import { fTail, logGamma } from './fTail.js';

test('chi-square, adjusted residuals and Cramér’s V (Agresti 2007, R chisq.test and vcd: check value 2.4)', () => {
  const { input, expected } = checkValue<
    { table: number[][] },
    {
      chisq: number;
      df: number;
      p: number;
      cramers_v: number;
      adjusted_standardised_residuals: number[][];
    }
  >('2.4');
  const [women, men] = input.table;
  const found = chiSquare(women!.map((count, g) => countedGroup(count, count + men![g]!)))!;
  expect(found.value).toBeCloseTo(expected.chisq, 9);
  expect(found.degrees).toEqual([expected.df]);
  expect(found.p).toBeCloseTo(expected.p, 14);
  expect(found.strength).toBeCloseTo(expected.cramers_v, 10);
  found.residuals.forEach((residual, g) =>
    expect(residual).toBeCloseTo(expected.adjusted_standardised_residuals[0]![g]!, 9),
  );
  expect(chiSquare([countedGroup(0, 10), countedGroup(0, 20)])).toBeNull();
  expect(chiSquare([countedGroup(3, 10), countedGroup(0, 0)])).toBeNull();
  const thin = [2, 3, 4, 5].map((count) => countedGroup(count, 20));
  expect([thin.slice(2), thin, [...thin, countedGroup(0, 0)]].map(isTooThin)).toEqual([
    true,
    true,
    true,
  ]);
  // one of six expected counts below 5 is still allowed
  expect(isTooThin([countedGroup(9, 40), countedGroup(11, 40), countedGroup(3, 15)])).toBe(false);
});

test.each([
  ['sch_wide', 'stype', ['E', 'H', 'M']],
  ['awards', 'yr_rnd', ['0', '1']],
])(
  'weighted: %s by %s as R survey’s svychisq, statistic F (check value 3.4)',
  (column, by, values) => {
    type Expected = {
      weights_only: Record<
        string,
        { F_rao_scott_second_order: { statistic: number; df: [number, number]; p: number } }
      >;
    };
    const groups = values.map((value) => schoolsAsGroup(by, value, column));
    const right = checkValue<unknown, Expected>('3.4').expected.weights_only[`${column}_by_${by}`]!
      .F_rao_scott_second_order;
    const found = raoScott(groups)!;
    expect(found.value).toBeCloseTo(right.statistic, 7);
    found.degrees.forEach((degrees, d) => expect(degrees).toBeCloseTo(right.df[d]!, 5));
    expect(found.p).toBeCloseTo(right.p, 11);
    if (groups.length === 2) {
      const pair = pairEffect(groups[0]!, groups[1]!)!;
      expect(pair.value).toBeCloseTo(right.statistic, 7);
      expect(pair.others).toBe(199);
    }
    // an empty group changes nothing
    expect(raoScott([...groups, countedGroup(0, 0)])!.value).toBeCloseTo(found.value, 12);
  },
);

test('the F distribution’s tail and the gamma function (R 4.2.2 qf; Γ(1/2) = √π, Γ(11) = 10!)', () => {
  expect(fTail(4.964602743730711, 1, 10)).toBeCloseTo(0.05, 12);
  expect(fTail(3.325834530413013, 5, 10)).toBeCloseTo(0.05, 12);
  expect(fTail(0, 2, 9)).toBe(1);
  expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.PI) / 2, 13);
  expect(logGamma(11)).toBeCloseTo(Math.log(3628800), 12);
});
