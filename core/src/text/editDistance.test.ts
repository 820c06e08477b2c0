import { expect, test } from '@jest/globals';
import { checkValue } from '../../test/checkValues.js';
import { editDistance } from './editDistance.js';

test('edit distances are those of R’s stringdist (check value 5.16), and cut off at the limit', () => {
  const { expected } = checkValue<unknown, { a: string; b: string; levenshtein: number }[]>('5.16');
  for (const { a, b, levenshtein } of expected) {
    expect([a, b, editDistance(a, b, 99)]).toEqual([a, b, levenshtein]);
    if (levenshtein > 0) expect(editDistance(a, b, levenshtein - 1)).toBe(levenshtein);
  }
});
