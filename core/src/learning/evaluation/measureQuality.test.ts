import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { wilsonInterval } from '../../statistics/index.js';
import { measureQuality, resample } from './measureQuality.js';

describe('measureQuality', () => {
  const p = Float64Array.of(0.9, 0.8, 0.7, 0.6, 0.4, 0.3, 0.2, 0.1);
  const labels = Uint8Array.of(1, 1, 0, 1, 1, 0, 0, 0);
  const keys = [...p.keys()].map(String);

  test('worked by hand: three right and one wrong above .5, one missed below', () => {
    const quality = measureQuality(p, labels, 0.5, resample(keys, 1));
    expect(quality).toMatchObject({ precision: 3 / 4, recall: 3 / 4, f1: 3 / 4 });
    expect(quality.precisionInterval).toEqual(wilsonInterval(3 / 4, 4));
    expect(quality.recallInterval).toEqual(wilsonInterval(3 / 4, 4));
    expect(quality.averagePrecision).toBeCloseTo((1 + 1 + 3 / 4 + 4 / 5) / 4, 12);
    expect(quality.brier).toBeCloseTo(
      (0.01 + 0.04 + 0.49 + 0.16 + 0.36 + 0.09 + 0.04 + 0.01) / 8,
      12,
    );
  });

  test('duplicates are resampled together: as one group there is nothing to vary', () => {
    const { f1, f1Interval } = measureQuality(p, labels, 0.5, resample(keys.fill('same'), 1));
    expect(f1Interval).toEqual([f1, f1]);
  });

  test('the bootstrap interval holds the measured F1, and is the same for the same seed', () => {
    const example = fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean());
    fc.assert(
      fc.property(fc.array(example, { minLength: 20, maxLength: 60 }), fc.nat(), (all, seed) => {
        const values = Float64Array.from(all, ([value]) => value);
        const truth = Uint8Array.from(all, ([, positive]) => Number(positive));
        const own = [...values.keys()].map(String);
        const quality = measureQuality(values, truth, 0.5, resample(own, seed));
        expect(measureQuality(values, truth, 0.5, resample(own, seed))).toEqual(quality);
        const [low, high] = quality.f1Interval;
        expect(low).toBeLessThanOrEqual(quality.f1 + 1e-12);
        expect(high).toBeGreaterThanOrEqual(quality.f1 - 1e-12);
      }),
      // percentiles of a bootstrap, not a law: the same cases each time
      { numRuns: 40, seed: 7 },
    );
  });
});
