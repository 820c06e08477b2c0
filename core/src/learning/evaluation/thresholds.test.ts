import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bestF1Threshold } from './metrics.js';
import { placeThresholds, type OwnOutcome } from './thresholds.js';

const TEXTS = Array.from({ length: 8 }, (_, i) => `answer ${i}`);
const outcome = (
  codeId: string,
  ownThreshold: number,
  outOfFold: number[],
  settledLabels: number[],
  isTheme = false,
): OwnOutcome => ({
  codeId,
  ownThreshold,
  outOfFold: Float64Array.from(outOfFold),
  settledLabels: Uint8Array.from(settledLabels),
  isTheme,
});
const fares = outcome(
  'fares',
  0.3,
  [0.9, 0.8, 0.6, 0.2, 0.1, 0.1, 0.1, 0.1],
  [1, 1, 1, 0, 0, 0, 0, 0],
);
const crew = outcome(
  'crew',
  0.7,
  [0.6, 0.5, 0.4, 0.1, 0.1, 0.1, 0.1, 0.1],
  [1, 0, 0, 0, 0, 0, 0, 0],
);

test('a threshold lies between the code’s own and that of all codes, by their log-odds', () => {
  // over both codes, the four at .6 and more are right, and nothing else
  const [ofFares, ofCrew] = placeThresholds([fares, crew], TEXTS, 1);
  const odds = (p: number) => p / (1 - p);
  expect(odds(ofFares!.threshold)).toBeCloseTo(Math.sqrt(odds(0.3) * odds(0.6)), 9);
  expect(odds(ofCrew!.threshold)).toBeCloseTo(Math.sqrt(odds(0.7) * odds(0.6)), 9);
  expect(ofFares!.quality).toMatchObject({ precision: 1, recall: 1, f1: 1 });
  // the one with the code is just below the line
  expect(ofCrew!.quality).toMatchObject({ precision: 0, recall: 0 });
});

test('a theme takes the threshold of all codes, and gives it nothing', () => {
  const theme = outcome(
    'theme',
    0.5,
    [0.2, 0.2, 0.2, 0.2, 0.2, 0.2, 0.2, 0.2],
    [1, 1, 1, 1, 1, 1, 1, 1],
    true,
  );
  const [alone] = placeThresholds([fares], TEXTS, 1);
  const [beside, ofTheme] = placeThresholds([fares, theme], TEXTS, 1);
  expect(beside).toEqual(alone);
  expect(ofTheme!.threshold).toBeGreaterThan(0.5);
  // without any code there is nothing to share
  expect(placeThresholds([theme], TEXTS, 1)[0]!.threshold).toBe(0.5);
});

test('whatever was measured, the threshold is a probability between the two', () => {
  const probability = fc.double({ min: 0, max: 1, noNaN: true });
  const measured = fc.record({
    own: probability,
    p: fc.array(probability, { minLength: 8, maxLength: 8 }),
    labels: fc.array(fc.constantFrom(0, 1), { minLength: 8, maxLength: 8 }),
  });
  fc.assert(
    fc.property(fc.array(measured, { minLength: 1, maxLength: 5 }), (codes) => {
      const outcomes = codes.map(({ own, p, labels }, c) => outcome(String(c), own, p, labels));
      const shared = bestF1Threshold(
        Float64Array.from(codes.flatMap(({ p }) => p)),
        Uint8Array.from(codes.flatMap(({ labels }) => labels)),
      );
      placeThresholds(outcomes, TEXTS, 1).forEach(({ threshold }, c) => {
        const { own } = codes[c]!;
        expect(threshold).toBeGreaterThanOrEqual(Math.min(own, shared, 1 - 1e-4) - 1e-9);
        expect(threshold).toBeLessThanOrEqual(Math.max(own, shared, 1e-4) + 1e-9);
      });
    }),
  );
});
