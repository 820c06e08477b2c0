import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bestClusters, clusterRows, silhouetteOf } from './clusterRows.js';
import { clusterTexts } from './clusterTexts.js';
import { cosineOf, type DenseRows } from './denseRows.js';
import { LIKE, likeChosen, representatives } from './representatives.js';

/** Points on the unit circle, by their angles in degrees. */
const circle = (...angles: number[]): DenseRows => ({
  size: 2,
  count: angles.length,
  values: Float32Array.from(
    angles.flatMap((angle) => [
      Math.cos((angle * Math.PI) / 180),
      Math.sin((angle * Math.PI) / 180),
    ]),
  ),
  isMeaning: true,
});

test('rows that lie together are a cluster, as many as the silhouette chooses', () => {
  const rows = circle(0, 3, 6, 120, 123, 126, 240, 243, 246);
  const { clusterOf, silhouette } = bestClusters(rows, 8);
  expect(new Set(clusterOf).size).toBe(3);
  for (const i of [0, 3, 6]) expect(new Set(clusterOf.slice(i, i + 3)).size).toBe(1);
  expect(silhouette).toBeGreaterThan(0.95);
});

test('the silhouette by its definition (Rousseeuw 1987, worked by hand)', () => {
  // cosine distances: 1 within no pair but the first, 1 − cos 60° = .5 and 1 − cos 90° = 1
  const rows = circle(0, 60, 90);
  const clusters = Int32Array.from([0, 0, 1]);
  const [within, toOther0, toOther1] = [0.5, 1, 1 - Math.cos(Math.PI / 6)];
  const by = (a: number, b: number) => (b - a) / Math.max(a, b);
  // one alone in its cluster has 0
  const expected = (by(within, toOther0) + by(within, toOther1) + 0) / 3;
  expect(silhouetteOf(rows, [0, 1, 2], clusters)).toBeCloseTo(expected, 6);
});

test('the few that stand for most cover no fewer than told, at least 63% of the best', () => {
  const angle = fc.integer({ min: 0, max: 359 });
  fc.assert(
    fc.property(fc.array(angle, { minLength: 1, maxLength: 14 }), (angles) => {
      const rows = circle(...angles);
      const chosen = likeChosen(rows, representatives(rows, 2));
      const covered = chosen.flatMap(({ like }) => like);
      const isLike = (i: number, j: number) => cosineOf(rows, i, rows.values, j) >= LIKE;
      const coveredBy = (some: number[]) =>
        angles.filter((_, i) => some.some((row) => isLike(i, row))).length;
      expect(new Set(covered).size).toBe(covered.length);
      expect(covered.length).toBe(coveredBy(chosen.map(({ row }) => row)));
      const worth = (some: number[]) =>
        angles.reduce(
          (sum, _, i) =>
            sum +
            Math.max(
              0,
              ...some
                .filter((row) => isLike(i, row))
                .map((row) => cosineOf(rows, i, rows.values, row)),
            ),
          0,
        );
      const pairs = angles.flatMap((_, i) => angles.map((__, j) => worth([i, j])));
      const bound = (1 - 1 / Math.E) * Math.max(...pairs);
      expect(worth(chosen.map(({ row }) => row))).toBeGreaterThanOrEqual(bound - 1e-6);
    }),
  );
});

test('texts are gathered by their words where nothing is read, each once, always the same', () => {
  const texts = Array.from({ length: 40 }, (_, i) =>
    i % 2 ? `late boats every winter ${i}` : `toilets and seats on deck ${i}`,
  );
  const ask = () =>
    clusterTexts([...texts, '??'], null, {
      k: null,
      most: 6,
      leftOut: { question: '', setAside: [] },
    });
  const { clusters, isMeaning, compared } = ask();
  expect(isMeaning).toBe(false);
  expect(compared).toBe(40);
  expect(clusters.map(({ members }) => members.length)).toEqual([20, 20]);
  expect(clusters.flatMap(({ words }) => words)).toEqual(
    expect.arrayContaining(['toilets', 'late']),
  );
  expect(clusters.flatMap(({ members }) => members).toSorted((x, y) => x - y)).toEqual([
    ...texts.keys(),
  ]);
  for (const { members, typical, edge } of clusters) {
    expect(typical.every((one) => members.includes(one))).toBe(true);
    expect(edge === null || members.includes(edge)).toBe(true);
  }
  expect(ask()).toEqual(ask());
  expect(clusterRows(circle(10, 10, 10), 3).clusterOf).toEqual(Int32Array.from([0, 0, 0]));
});
