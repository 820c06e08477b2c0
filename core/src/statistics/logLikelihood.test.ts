import { expect, test } from '@jest/globals';
import { logLikelihood } from './logLikelihood.js';

test('G² of a word in two texts (Dunning 1993; R 4.2.2, check value 5.14)', () => {
  // occurrences in either text, words of either text, G² of all four cells
  const rows: [number, number, number, number, number][] = [
    [120, 45, 10_000, 15_000, 73.0092440247],
    [5, 0, 300, 450, 9.21329985676],
    [0, 7, 300, 450, 7.19547911701],
    [12, 18, 1000, 1500, 0],
    [3, 30, 200, 5000, 1.81155988066],
  ];
  for (const [a, b, c, d, expected] of rows)
    expect(logLikelihood(a, c, a + b, c + d)).toBeCloseTo(expected, 8);
});
