import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue } from '../../test/checkValues.js';
import { estimateShare, randomSource } from '../statistics/index.js';
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
  test('carry estimates as a simple random sample does, with an interval that is no narrower than it says', () => {
    const next = randomSource(7);
    const chance = () => next() / 2 ** 32;
    // three groups of unequal size, in which the code is rare, common, and hard to predict
    const population = Array.from({ length: 1200 }, (_, i) => {
      const stratum = i % 12 === 0 ? 'few' : i % 3 === 0 ? 'some' : 'most';
      const often = { few: 0.8, some: 0.4, most: 0.1 }[stratum];
      const mentioned = Number(chance() < often);
      const predicted = stratum === 'few' ? 0.3 : 0.8 * mentioned + 0.2 * chance();
      return { stratum, mentioned, predicted };
    });
    const strata = population.map(({ stratum }) => stratum);
    const predicted = population.map((one) => one.predicted);
    const truth = population.reduce((sum, { mentioned }) => sum + mentioned, 0) / strata.length;
    const draws = 1000;
    let [covered, sum] = [0, 0];
    for (let seed = 0; seed < draws; seed++) {
      const sampled = stratifiedSample(strata, 97, seed);
      const { estimate } = estimateShare({
        answers: strata.length,
        sampled,
        predicted,
        truth: sampled.map((i) => population[i]!.mentioned),
      })!;
      const [low, high] = estimate!.interval;
      if (low <= truth && truth <= high) covered += 1;
      sum += estimate!.value / draws;
    }
    expect(Math.abs(sum - truth)).toBeLessThan(0.005);
    // 95% of 1,000 draws, less what chance may take with probability .001
    expect(covered / draws).toBeGreaterThan(0.928);
  });

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
