import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue } from '../../test/checkValues.js';
import { mostTelling } from './mostTelling.js';
import { marginOf, sampleSizeFor } from './sampleSize.js';
import { allocate, stratifiedSample } from './stratified.js';

describe('how many are needed (Cochran 1977, by R)', () => {
  test('for a margin, in populations of any size', () => {
    const { expected } = checkValue<
      unknown,
      {
        infinite: { e: number; n: number }[];
        with_fpc: { N: number; e: number; n: number }[];
        'p_0.2_e_0.03': { n: number };
      }
    >('8.1');
    for (const { N, e, n } of expected.with_fpc) expect(sampleSizeFor(N, e)).toBe(n);
    for (const { e, n } of expected.infinite) expect(sampleSizeFor(1e12, e)).toBe(n);
    expect(sampleSizeFor(1e12, 0.03, 0.95, 0.2)).toBe(expected['p_0.2_e_0.03'].n);
    expect(() => sampleSizeFor(100, 0)).toThrow(RangeError);
  });

  test('and the margin that a number brings', () => {
    const { expected } = checkValue<unknown, { n: number; N: number | null; e: number }[]>('8.2');
    for (const { n, N, e } of expected) expect(marginOf(n, N ?? 1e12)).toBeCloseTo(e, 6);
  });
});

describe('strata', () => {
  test('get their proportion by largest remainders (Hamilton, by R)', () => {
    const { input, expected } = checkValue<
      Record<string, { N_h: number[]; n: number }>,
      Record<string, { allocation: number[] }>
    >('8.3');
    for (const [name, { N_h, n }] of Object.entries(input))
      expect(allocate(N_h, n)).toEqual(expected[name]!.allocation);
  });

  test('a sample is as large as asked, each stratum within one of its quota', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1 }),
        fc.nat(),
        fc.nat(99),
        (strata, n, seed) => {
          const size = n % (strata.length + 1);
          const drawn = stratifiedSample(strata, size, seed);
          expect(new Set(drawn).size).toBe(size);
          for (const stratum of new Set(strata)) {
            const share = strata.filter((one) => one === stratum).length / strata.length;
            const got = drawn.filter((i) => strata[i] === stratum).length;
            expect(Math.abs(got - share * size)).toBeLessThan(1);
          }
        },
      ),
    );
  });
});

test('most telling are unsure ones, and unlike each other', () => {
  const texts = [
    ...Array<string>(30).fill('late boat'),
    ...Array<string>(30).fill('high fare'),
    'sure',
  ];
  const distance = texts.map((text, i) => (text === 'sure' ? 0.5 : 0.1 + i / 1000));
  const chosen = mostTelling(texts, distance, 10).map((i) => texts[i]);
  expect(chosen).toHaveLength(10);
  expect(new Set(chosen)).toEqual(new Set(['late boat', 'high fare']));
});
