import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { simpleRandomSample } from './simpleRandom.js';

test('draws as many different ones as asked, in order, the same for the same seed', () => {
  fc.assert(
    fc.property(fc.nat(200), fc.nat(200), fc.nat(), (x, y, seed) => {
      const [size, population] = [Math.min(x, y), Math.max(x, y)];
      const sample = simpleRandomSample(population, size, seed);
      expect(new Set(sample).size).toBe(size);
      expect(sample).toEqual([...sample].sort((a, b) => a - b));
      expect(sample.every((i) => i >= 0 && i < population)).toBe(true);
      expect(simpleRandomSample(population, size, seed)).toEqual(sample);
    }),
  );
  expect(() => simpleRandomSample(3, 4, 1)).toThrow(RangeError);
});

test('everybody has the same chance (chi-square on 9 degrees of freedom, .999 quantile of R 4.2.2 qchisq)', () => {
  const drawn = new Array<number>(10).fill(0);
  for (let seed = 0; seed < 2000; seed++)
    for (const i of simpleRandomSample(10, 3, seed)) drawn[i]! += 1;
  // without replacement the counts vary less than multinomial ones: (1 − 3/10) of it
  const chi2 = drawn.reduce((sum, count) => sum + (count - 600) ** 2 / 600, 0) / 0.7;
  expect(chi2).toBeLessThan(27.88);
});
