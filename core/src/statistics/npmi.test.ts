import { expect, test } from '@jest/globals';
import { checkValue } from '../../test/checkValues.js';
import { npmi } from './npmi.js';

test('NPMI of two codes (Bouma 2009; R by the published formula: check value 5.15)', () => {
  const { input, expected } = checkValue<
    { rows_nab_na_nb_n: [number, number, number, number][] },
    { npmi: number }[]
  >('5.15');
  expect(input.rows_nab_na_nb_n.length).toBeGreaterThan(3);
  for (const [i, row] of input.rows_nab_na_nb_n.entries())
    expect(npmi(...row)).toBeCloseTo(expected[i]!.npmi, 10);
});
