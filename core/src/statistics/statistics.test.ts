import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apiSample, checkTable, checkValue } from '../../test/checkValues.js';
import { differenceEstimate } from './difference.js';
import { effectiveBase } from './kish.js';
import { normalQuantile } from './normal.js';
import { drawnFor, randomSource, shuffle } from './random.js';
import { wilsonInterval } from './wilson.js';

test('Wilson interval (Wilson 1927; examples of Newcombe 1998, R prop.test: check value 2.1)', () => {
  type Rows = { x: number; n: number; wilson: [number, number] }[];
  for (const { x, n, wilson } of checkValue<unknown, Rows>('2.1').expected) {
    const [low, high] = wilsonInterval(x / n, n);
    expect(low).toBeCloseTo(wilson[0], 10);
    expect(high).toBeCloseTo(wilson[1], 10);
  }
  expect(wilsonInterval(0, 0)).toEqual([0, 1]);
});

test('normal quantile (Wichura 1988, AS 241; z of check value 2.1; R 4.2.2 qnorm)', () => {
  const { z } = checkValue<{ z: number }, unknown>('2.1').input;
  expect(normalQuantile(0.975)).toBeCloseTo(z, 12);
  expect(normalQuantile(0.5)).toBe(0);
  expect(normalQuantile(0.995)).toBeCloseTo(2.575829303548901, 12);
  expect(normalQuantile(1e-10)).toBeCloseTo(-6.361340902404056, 10);
  expect(() => normalQuantile(1)).toThrow(RangeError);
});

test('effective base (Kish 1965; R survey, data(api): check value 3.1)', () => {
  type Expected = { n_eff: number; small: { n_eff: number } };
  const { input, expected } = checkValue<{ small: number[] }, Expected>('3.1');
  const of = (weights: number[]) =>
    effectiveBase(
      weights.reduce((sum, w) => sum + w, 0),
      weights.reduce((sum, w) => sum + w * w, 0),
    );
  expect(of(apiSample().map((row) => Number(row['pw'])))).toBeCloseTo(expected.n_eff, 8);
  expect(of(input.small)).toBeCloseTo(expected.small.n_eff, 10);
  expect(of([0, 0])).toBe(0);
});

describe('random numbers', () => {
  test('xoshiro128** seeded by splitmix64 (Blackman & Vigna 2021: check value 8.6)', () => {
    type Expected = { xoshiro128ss: Record<string, { u32: number[] }> };
    const { xoshiro128ss } = checkValue<unknown, Expected>('8.6').expected;
    for (const seed of [0, 1, 42]) {
      const next = randomSource(seed);
      const { u32 } = xoshiro128ss[`splitmix64_seed_${seed}`]!;
      expect(u32.map(() => next())).toEqual(u32);
    }
  });

  test('a shuffle keeps every value, and the same seed gives the same order', () => {
    fc.assert(
      fc.property(fc.array(fc.integer()), fc.nat(), (values, seed) => {
        const shuffled = shuffle([...values], randomSource(seed));
        expect([...shuffled].sort()).toEqual([...values].sort());
        expect(shuffle([...values], randomSource(seed))).toEqual(shuffled);
      }),
    );
  });
});

test('a number drawn for an id is the finaliser of MurmurHash3 (its published hashes of no bytes)', () => {
  // of no bytes the hash is the finaliser of its seed: Wikipedia, MurmurHash, test vectors
  expect(drawnFor(1, 0)).toBe(0x514e28b7);
  expect(drawnFor(0xffffffff, 0)).toBe(0x81f16f39);
  expect(drawnFor(1, 2)).not.toBe(drawnFor(1, 3));
});

test('difference estimator (Särndal, Swensson & Wretman 1992; R survey: check value 4.1)', () => {
  type Expected = {
    probability_score: { estimate: number; se: number; ci95_normal: [number, number] };
  };
  const { input, expected } = checkValue<
    { sampled_ids: number[]; truth_sample: number[] },
    Expected
  >('4.1');
  const scores = checkTable('difference60.csv').map((row) => Number(row['score']));
  const places = input.sampled_ids.map((id) => id - 1);
  const estimate = differenceEstimate(scores, places, input.truth_sample)!;
  const { estimate: value, se, ci95_normal } = expected.probability_score;
  expect(estimate.value).toBeCloseTo(value, 10);
  expect(estimate.standardError).toBeCloseTo(se, 10);
  estimate.interval.forEach((end, i) => expect(end).toBeCloseTo(ci95_normal[i]!, 10));
  expect(differenceEstimate([0.5], [0], [1])).toBeNull();
});

test('difference estimator of a group (Särndal, Swensson & Wretman 1992; R survey: check value 4.4)', () => {
  type Group = { mean_error: number; s2_e: number; estimate: number; N_h: number; n_h: number };
  const { by_group } = checkValue<unknown, { by_group: Record<string, Group> }>('4.4').expected;
  for (const [group, expected] of Object.entries(by_group)) {
    const members = checkTable('difference60.csv').filter((row) => row['group'] === group);
    const sampled = [...members.keys()].filter((i) => members[i]!['sampled'] === '1');
    const { value, standardError } = differenceEstimate(
      members.map((row) => Number(row['pred'])),
      sampled,
      sampled.map((i) => Number(members[i]!['truth_if_sampled'])),
    )!;
    expect(value).toBeCloseTo(expected.estimate, 10);
    const { n_h, N_h, s2_e } = expected;
    expect(standardError).toBeCloseTo(Math.sqrt(((1 - n_h / N_h) * s2_e) / n_h), 10);
  }
});

test('weighted difference estimator (linearisation; R survey svymean, data(api): check value 3.2)', () => {
  type Expected = { weights_only: Record<string, { p: number; se: number }> };
  const { weights_only } = checkValue<unknown, Expected>('3.2').expected;
  const schools = apiSample();
  const all = 1000;
  // a model that says nothing, so that what is off is the share itself; the others of the population weigh what they may
  const weights = Array.from({ length: all }, (_, i) => Number(schools[i]?.['pw'] ?? 7));
  for (const column of ['sch_wide', 'comp_imp', 'awards']) {
    const { value, standardError } = differenceEstimate(
      new Float64Array(all),
      [...schools.keys()],
      schools.map((row) => Number(row[column] === 'Yes' || row[column] === '1')),
      { weights },
    )!;
    const { p, se } = weights_only[column]!;
    expect(value).toBeCloseTo(p, 6);
    expect(standardError / Math.sqrt(1 - schools.length / all)).toBeCloseTo(se, 7);
  }
});
