import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addTo, emptyBitset } from '../groups/index.js';
import { countTogether, togetherness } from './together.js';

const PEOPLE = 70;
const flags = fc.array(fc.boolean(), { minLength: PEOPLE, maxLength: PEOPLE });
const setOf = (flagged: readonly boolean[]) => {
  const set = emptyBitset(PEOPLE);
  flagged.forEach((is, i) => is && addTo(set, i));
  return set;
};
const flagsOf = (is: boolean) => Array.from({ length: PEOPLE }, () => is);
const mean = (values: readonly number[]) => values.reduce((sum, x) => sum + x, 0) / values.length;

/** Pearson's correlation by its definition. */
function correlation(x: readonly number[], y: readonly number[]): number {
  const [ofX, ofY] = [mean(x), mean(y)];
  const covariance = mean(x.map((one, i) => (one - ofX) * (y[i]! - ofY)));
  const variance = (values: readonly number[], its: number) =>
    mean(values.map((one) => (one - its) ** 2));
  return covariance / Math.sqrt(variance(x, ofX) * variance(y, ofY));
}

test('two codes are counted among those of the group for whom both are decided', () => {
  fc.assert(
    fc.property(flags, flags, flags, flags, flags, (group, one, other, decided, alsoDecided) => {
      const codes = [
        { mentioned: setOf(one), decided: setOf(decided) },
        { mentioned: setOf(other), decided: setOf(alsoDecided) },
      ];
      const [first, second] = countTogether(codes, setOf(group));
      const counted = [...group.keys()].filter((i) => group[i] && decided[i] && alsoDecided[i]);
      const of = (flagged: readonly boolean[]) => counted.map((i) => Number(flagged[i]));
      const [x, y] = [of(one), of(other)];
      const both = x.filter((is, k) => is === 1 && y[k] === 1).length;
      const either = x.filter((is, k) => is === 1 || y[k] === 1).length;
      const found = first!.cells[1]!;
      expect(found.both).toBe(both);
      expect(found.jaccard).toBe(either === 0 ? null : both / either);
      if (found.phi !== null) expect(found.phi).toBeCloseTo(correlation(x, y), 10);
      // somebody's having it is no news where all have it, or nobody
      else expect([x, y].some((its) => new Set(its).size < 2)).toBe(true);
      if (found.lift !== null)
        expect(found.lift).toBeCloseTo(
          mean(x.map((is, k) => is * y[k]!)) / (mean(x) * mean(y)),
          10,
        );
      expect(second!.cells[0]).toEqual(found);
      expect([first!.cells[0], second!.cells[1]]).toEqual([null, null]);
      expect(first!.n).toBe([...group.keys()].filter((i) => group[i] && decided[i]).length);
    }),
  );
});

test('where people have weights, sums of these are counted, and the unweighted numbers beside them', () => {
  fc.assert(
    fc.property(flags, flags, (one, other) => {
      const all = setOf(flagsOf(true));
      const codes = [one, other].map((flagged) => ({ mentioned: setOf(flagged), decided: all }));
      const plain = countTogether(codes, all);
      const doubled = countTogether(codes, all, new Float64Array(PEOPLE).fill(2));
      expect(doubled[0]!.n).toBe(2 * PEOPLE);
      expect(doubled[0]!.unweighted).toEqual(plain[0]!.unweighted);
      const [cell, of] = [doubled[0]!.cells[1]!, plain[0]!.cells[1]!];
      expect([cell.both, cell.unweighted, cell.jaccard]).toEqual([
        2 * of.both,
        of.both,
        of.jaccard,
      ]);
      // somebody of no weight is not counted
      const weights = Float64Array.from(other, (is) => (is ? 1 : 0));
      expect(countTogether(codes, all, weights)[0]!.people).toBe(of.both);
    }),
  );
});

test('codes that have nothing to do with each other, that go together, and that exclude each other', () => {
  expect(togetherness(10, 20, 50, 100)).toEqual({ both: 10, jaccard: 10 / 60, phi: 0, lift: 1 });
  expect(togetherness(20, 20, 20, 100)).toEqual({ both: 20, jaccard: 1, phi: 1, lift: 5 });
  expect(togetherness(0, 40, 60, 100)).toEqual({ both: 0, jaccard: 0, phi: -1, lift: 0 });
  expect(togetherness(0, 0, 60, 100)).toEqual({ both: 0, jaccard: 0, phi: null, lift: null });
  expect(togetherness(0, 0, 0, 100)).toEqual({ both: 0, jaccard: null, phi: null, lift: null });
});

test('pairs are tested on people: exactly where few are expected, and corrected for all of them', () => {
  // Fisher (1935): the lady tasting tea, 3 of 4 and 1 of 4, p = .4857; a third code everybody has says nothing
  const setAt = (...at: number[]) => {
    const set = emptyBitset(8);
    for (const i of at) addTo(set, i);
    return set;
  };
  const all = setAt(0, 1, 2, 3, 4, 5, 6, 7);
  const codes = [setAt(0, 1, 2, 3), setAt(0, 1, 2, 4), all].map((mentioned) => ({
    mentioned,
    decided: all,
  }));
  expect(countTogether(codes.slice(0, 2), all)[0]!.cells[1]!.p).toBeCloseTo(34 / 70, 4);
  const [first, second] = countTogether(codes, all);
  expect(first!.cells[1]!.p).toBe(second!.cells[0]!.p);
  // of three tests the first is corrected to what the second allows
  expect(first!.cells.map((cell) => cell?.p.toFixed(9))).toEqual([
    undefined,
    '1.000000000',
    '1.000000000',
  ]);
});
