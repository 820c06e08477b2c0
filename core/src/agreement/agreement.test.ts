import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue } from '../../test/checkValues.js';
import {
  alphaOfCode,
  alphaOfSets,
  bootstrapKappa,
  cohenKappa,
  compareCoders,
  eachOnce,
  gwetAc1,
  krippendorffAlpha,
  masiDistance,
  stateOfAgreement,
} from './index.js';

interface KappaValues {
  kappa: number | null;
  se?: number;
  ci95?: [number, number];
  po?: number;
}
const nominal = (one: unknown, other: unknown) => (one === other ? 0 : 1);
const setsOfUnits = <Value>(coders: readonly (readonly (Value | null)[])[]): Value[][] =>
  coders[0]!.map((_, unit) => coders.flatMap((coder) => coder[unit] ?? []));
const unitsOf = <Value>(coders: readonly (readonly (Value | null)[])[]) =>
  eachOnce(setsOfUnits(coders));
const unitsOfTable = (table: readonly number[][]) =>
  table.flatMap((row, i) => row.flatMap((n, j) => Array.from({ length: n }, () => [i, j])));

function expectKappa(table: number[][], expected: KappaValues) {
  const found = cohenKappa(table);
  if (expected.kappa === null) expect(found.kappa).toBeNull();
  else expect(found.kappa).toBeCloseTo(expected.kappa, 10);
  if (expected.po !== undefined) expect(found.agreed).toBeCloseTo(expected.po, 10);
  if (expected.se !== undefined) expect(found.error).toBeCloseTo(expected.se, 10);
  expected.ci95?.forEach((bound, i) => expect(found.interval![i]).toBeCloseTo(bound, 9));
}

test('kappa with its large-sample error (Cohen 1960, Fleiss, Cohen & Everitt 1969, R psych, SAS: check values 1.1 to 1.6)', () => {
  for (const id of ['1.1', '1.2', '1.3', '1.4']) {
    const { input, expected } = checkValue<{ counts: number[][] }, KappaValues>(id);
    expectKappa(input.counts, expected);
  }
  for (const id of ['1.5', '1.6']) {
    const { input, expected } = checkValue<
      Record<string, number[][]>,
      Record<string, KappaValues & { ac1?: number; alpha?: number | null }>
    >(id);
    for (const [name, table] of Object.entries(input)) {
      const right = expected[name]!;
      expectKappa(table, right);
      if (right.ac1 !== undefined)
        expect(gwetAc1(eachOnce(unitsOfTable(table)), 2)).toBeCloseTo(right.ac1, 6);
      if (right.alpha !== undefined)
        expect(krippendorffAlpha(eachOnce(unitsOfTable(table)), nominal)).toBe(right.alpha);
    }
  }
});

test('alpha and AC1 of several coders with missing values (Krippendorff 2011, Gwet 2014: check values 1.10 to 1.12)', () => {
  const several = checkValue<
    { ratings_coder_by_unit: (number | null)[][] },
    { alpha_nominal: number; multi_rater: { ac1: number } }
  >('1.10');
  const units = unitsOf(several.input.ratings_coder_by_unit);
  expect(krippendorffAlpha(units, nominal)).toBeCloseTo(several.expected.alpha_nominal, 10);
  const fromNought = units.map(({ values, times }) => ({
    times,
    values: values.map((value) => value - 1),
  }));
  expect(gwetAc1(fromNought, 5)).toBeCloseTo(several.expected.multi_rater.ac1, 10);
  for (const id of ['1.11', '1.12']) {
    const { input, expected } = checkValue<
      { A: (string | number)[]; B: (string | number)[] },
      { alpha: number }
    >(id);
    expect(krippendorffAlpha(unitsOf([input.A, input.B]), nominal)).toBeCloseTo(expected.alpha, 10);
  }
  expect([
    krippendorffAlpha(eachOnce([[1], []]), nominal),
    gwetAc1(eachOnce([[1], []]), 2),
  ]).toEqual([null, null]);
});

test('sets of codes: MASI distance, and alpha by it (Passonneau 2006, nltk: check values 1.14 and 1.15)', () => {
  const { expected: pairs } = checkValue<
    unknown,
    { a: string[]; b: string[]; masi_distance_2_3_1_3: number }[]
  >('1.14');
  for (const { a, b, masi_distance_2_3_1_3 } of pairs)
    expect(masiDistance(new Set(a), new Set(b))).toBeCloseTo(masi_distance_2_3_1_3, 10);
  expect(masiDistance(new Set(), new Set())).toBe(0);
  expect(masiDistance(new Set(), new Set(['a']))).toBe(1);
  type Alpha = { masi_2_3_1_3: { alpha: number } };
  const { input, expected } = checkValue<
    { coders: Record<'c1' | 'c2' | 'c3', (string[] | null)[]> },
    { three_coders_with_missing: Alpha; two_coders: Alpha }
  >('1.15');
  const [one, two, three] = Object.values(input.coders).map((sets) =>
    sets.map((codes) => codes && new Set(codes)),
  );
  expect(alphaOfSets(setsOfUnits([one!, two!, three!]))).toBeCloseTo(
    expected.three_coders_with_missing.masi_2_3_1_3.alpha,
    10,
  );
  expect(alphaOfSets(setsOfUnits([one!, two!]))).toBeCloseTo(
    expected.two_coders.masi_2_3_1_3.alpha,
    10,
  );
});

test('two coders code by code and over all codes (R: check value 1.13)', () => {
  type PerCode = {
    table_rows_coder1_0_1: [[number, number], [number, number]];
    percent_agreement: number;
    kappa: number;
    se: number;
    alpha: number;
    ac1: number;
  };
  const { input, expected } = checkValue<
    { coder1: number[][]; coder2: number[][]; codes: string[] },
    {
      per_code: Record<string, PerCode>;
      pooled_table: number[][];
      pooled_kappa: number;
      exact_set_match: number;
    }
  >('1.13');
  const setsOf = (coder: number[][]) =>
    coder.map((row) => new Set(input.codes.filter((_, c) => row[c] === 1)));
  const [first, second] = [setsOf(input.coder1), setsOf(input.coder2)];
  const answers = first.map((codes, i) => [codes, second[i]!] as const);
  const found = compareCoders(answers, [...input.codes, 'never used']);
  expect(found.codes.map(({ codeId }) => codeId)).toEqual(input.codes);
  for (const { codeId, cells, ...rest } of found.codes) {
    const right = expected.per_code[codeId]!;
    expect([
      [cells.neither, cells.second],
      [cells.first, cells.both],
    ]).toEqual(right.table_rows_coder1_0_1);
    expect(rest.agreed).toBeCloseTo(right.percent_agreement, 10);
    expect(rest.kappa).toBeCloseTo(right.kappa, 10);
    expect(rest.error).toBeCloseTo(right.se, 10);
    expect(rest.alpha).toBeCloseTo(right.alpha, 10);
    expect(alphaOfCode(answers, codeId)).toBeCloseTo(right.alpha, 10);
    expect(rest.ac1).toBeCloseTo(right.ac1, 10);
  }
  // not giving a code is a decision of both, which counts overall
  const { cells, kappa } = compareCoders(answers, input.codes).overall;
  expect(found.overall.cells).toEqual({ ...cells, neither: cells.neither + answers.length });
  expect([
    [cells.neither, cells.second],
    [cells.first, cells.both],
  ]).toEqual(expected.pooled_table);
  expect(kappa).toBeCloseTo(expected.pooled_kappa, 10);
  expect(found.sameSets.count / found.sameSets.n).toBe(expected.exact_set_match);
  expect(found.codes.map(stateOfAgreement)).toEqual([
    'firm',
    'low',
    // four uses by either say little
    'little_evidence',
    'little_evidence',
  ]);
});

const someAnswers = fc.array(
  fc.tuple(...[0, 1].map(() => fc.subarray(['a', 'b', 'c']).map((codes) => new Set(codes)))),
  { minLength: 2, maxLength: 60 },
);

test('agreement does not depend on who is called first, and is whole only where every answer has the same codes', () => {
  fc.assert(
    fc.property(someAnswers, (made) => {
      const answers = made.map(([one, other]) => [one!, other!] as const);
      const found = compareCoders(answers, ['a', 'b', 'c']);
      const turned = compareCoders(
        answers.map(([one, other]) => [other, one] as const),
        ['a', 'b', 'c'],
      );
      const figures = ({ overall, alphaOfSets: sets, sameSets }: typeof found) =>
        [overall.kappa, overall.error, overall.alpha, overall.ac1, sets, sameSets.count].map(
          (one) => (one === null ? null : Number(one.toFixed(9))),
        );
      expect(figures(turned)).toEqual(figures(found));
      expect(found.overall.agreed === 1).toBe(found.sameSets.count === answers.length);
    }),
    { seed: 11, numRuns: 200 },
  );
});

test('with one code alone, leaving answers out in turn gives an error close to the large-sample one', () => {
  const table = [
    [80, 10],
    [15, 95],
  ];
  const answers = unitsOfTable(table).map(
    ([i, j]) => [new Set(i === 0 ? ['a'] : []), new Set(j === 0 ? ['a'] : [])] as const,
  );
  const { overall, codes } = compareCoders(answers, ['a']);
  expect(overall.error! / codes[0]!.error!).toBeCloseTo(1, 1);
  expect(compareCoders([], ['a']).overall).toMatchObject({ n: 0, kappa: null, ac1: null });
});

test('the interval of a rare code’s kappa stays within what a kappa can be, and holds it', () => {
  // the error of large samples reaches to 1.13 here
  const rare = { both: 3, first: 1, second: 0, neither: 96 };
  const { interval } = cohenKappa([
    [rare.both, rare.first],
    [rare.second, rare.neither],
  ]);
  expect(interval![1]).toBe(1);
  const [low, high] = bootstrapKappa(rare)!;
  expect(low).toBeGreaterThanOrEqual(0);
  expect(low).toBeLessThan(interval![0]);
  expect(high).toBe(1);
  const count = fc.integer({ min: 0, max: 30 });
  fc.assert(
    fc.property(
      fc.record({ both: count, first: count, second: count, neither: count }),
      (cells) => {
        const ends = bootstrapKappa(cells);
        if (!ends) return;
        expect(ends[0]).toBeGreaterThanOrEqual(-1);
        expect(ends[1]).toBeLessThanOrEqual(1);
        expect(bootstrapKappa(cells)).toEqual(ends);
      },
    ),
    { numRuns: 10 },
  );
});
