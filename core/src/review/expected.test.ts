import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { expectAbove, foundAndMissed, thresholdForPrecision, outlookOf } from './expected.js';
import { measureAtThreshold, measureCalibration } from './measured.js';
import { redecide, type Decision } from './redecide.js';
import { isWorseThanExpected, shareApplying } from './spotCheck.js';

const probability = fc.double({ min: 0, max: 1, noNaN: true });
const unseenAnswers = fc.record({ yes: fc.array(probability), no: fc.array(probability) });
const nothingSeen = { yes: [], no: [] };

test('expectations above any line equal sums over the suggestions there', () => {
  const law = fc.property(
    fc.array(probability),
    probability,
    fc.nat(50),
    fc.double({ min: 0, max: 9, noNaN: true }),
    unseenAnswers,
    (open, threshold, known, unsuggested, unseen) => {
      const { above, shareRight, shareFound } = expectAbove(
        outlookOf(open, { found: known, missed: unsuggested }, unseen),
        threshold,
      );
      const inside = open.filter((p) => p >= threshold);
      const sum = (values: number[]) => values.reduce((total, p) => total + p, 0);
      expect(above).toBe(inside.length);
      if (inside.length === 0) expect(shareRight).toBeNull();
      else {
        expect(shareRight!.value).toBeCloseTo(sum(inside) / inside.length, 9);
        const [low, high] = shareRight!.interval;
        expect(low).toBeLessThanOrEqual(shareRight!.value);
        expect(high).toBeGreaterThanOrEqual(shareRight!.value);
      }
      const all = known + sum(open) + unsuggested;
      if (all === 0) expect(shareFound).toBeNull();
      else expect(shareFound).toBeCloseTo((known + sum(inside)) / all, 9);
    },
  );
  fc.assert(law);
});

test('a wanted share right lays the line as low as it can be laid, and nowhere when it cannot', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 20 }).map((p) => p / 20)),
      probability,
      (open, wanted) => {
        const outlook = outlookOf(open, { found: 0, missed: 0 }, nothingSeen);
        const threshold = thresholdForPrecision(outlook, wanted);
        const isRight = (at: number) =>
          (expectAbove(outlook, at).shareRight?.value ?? -1) >= wanted - 1e-9;
        if (threshold === null) expect(open.some(isRight)).toBe(false);
        else {
          expect(isRight(threshold)).toBe(true);
          for (const lower of open.filter((p) => p < threshold)) expect(isRight(lower)).toBe(false);
        }
      },
    ),
  );
});

test('the interval is that of a Poisson-binomial count (Poisson 1837) and of the calibration', () => {
  // 100 suggestions at .5: a binomial with standard deviation 5, so ± 1.96 · .05 when the calibration is sure
  const half = (settled: number) => {
    const unseen = { yes: new Array<number>(settled / 2).fill(0.5), no: [] };
    const { shareRight } = expectAbove(
      outlookOf(
        new Array<number>(100).fill(0.5),
        { found: 0, missed: 0 },
        { ...unseen, no: unseen.yes },
      ),
      0.5,
    );
    expect(shareRight!.value).toBe(0.5);
    return shareRight!.interval[1] - 0.5;
  };
  expect(half(200_000)).toBeCloseTo(0.098, 3);
  // learnt from 400 at .5, the share itself is known with a standard error of √(.25 / 400)
  expect(half(400)).toBeCloseTo(1.959964 * Math.sqrt(0.05 ** 2 + 0.25 / 400), 6);
});

test('counts after decisions: as by counting, in bulk or read, whatever was decided before', () => {
  const decision = fc.constantFrom<Decision>('open', 'accepted', 'refused');
  const story = fc.array(fc.record({ at: fc.nat(9), to: decision }), { maxLength: 40 });
  const begun = fc.record({ probability, state: decision });
  fc.assert(
    fc.property(fc.array(begun, { minLength: 10, maxLength: 10 }), story, (suggested, steps) => {
      const sumOf = (some: { probability: number; bulk: boolean }[]) =>
        some.reduce((sum, one) => sum + (one.bulk ? one.probability : 0), 0);
      // what is decided at the beginning was decided in bulk
      const now = suggested.map((one) => ({ ...one, bulk: one.state !== 'open' }));
      const counted = () => {
        const having = (state: Decision) => now.filter((one) => one.state === state);
        const [accepted, refused] = [having('accepted'), having('refused')];
        return {
          open: having('open')
            .map((one) => one.probability)
            .sort((x, y) => y - x),
          accepted: 3 + accepted.length,
          acceptedInBulk: 1 + accepted.filter(({ bulk }) => bulk).length,
          refused: 2 + refused.length,
          refusedInBulk: 1 + refused.filter(({ bulk }) => bulk).length,
          acceptedExpected: sumOf(accepted),
          refusedExpected: sumOf(refused),
          known: 7 + accepted.filter(({ bulk }) => !bulk).length,
          threshold: 0.4,
        };
      };
      let counts = counted();
      for (const { at, to } of steps) {
        counts = redecide(counts, now[at]!, to);
        now[at] = { ...now[at]!, state: to, bulk: false };
        const { acceptedExpected, refusedExpected, ...whole } = counted();
        expect(counts).toMatchObject(whole);
        expect(counts.acceptedExpected).toBeCloseTo(acceptedExpected, 9);
        expect(counts.refusedExpected).toBeCloseTo(refusedExpected, 9);
      }
    }),
  );
});

test('refusing or accepting what nobody reads finds nothing more; a spot check says what it found', () => {
  // ten at .3 are open, 20 are known: 20 of 23 are expected to be found by what is decided so far
  const open = new Array<number>(10).fill(0.3);
  const none = { count: 0, expected: 0 };
  const unread = { count: 10, expected: 3 };
  const unchecked = { accepted: null, refused: null };
  const before = { known: 20, acceptedUnread: none, refusedUnread: none, unsuggested: 0 };
  const found = (left: number[], decided: Parameters<typeof foundAndMissed>[0]) =>
    expectAbove(outlookOf(left, foundAndMissed(decided), nothingSeen), 1).shareFound;
  expect(found(open, { ...before, checked: unchecked })).toBeCloseTo(20 / 23, 9);
  const refused = { ...before, refusedUnread: unread, checked: unchecked };
  expect(found([], refused)).toBeCloseTo(20 / 23, 9);
  const accepted = { ...before, acceptedUnread: unread, checked: unchecked };
  expect(found([], accepted)).toBeCloseTo(1, 9);
  // half of those refused were mentions after all
  const checked = { ...refused, checked: { accepted: null, refused: 0.5 } };
  expect(found([], checked)).toBeCloseTo(20 / 25, 9);
});

test('measured along the line: precision and recall as by counting, all answers in one step of what was said', () => {
  fc.assert(
    fc.property(unseenAnswers, probability, ({ yes, no }, threshold) => {
      const { precision, recall } = measureAtThreshold({ yes, no }, threshold);
      const above = [...yes, ...no].filter((p) => p >= threshold).length;
      const right = yes.filter((p) => p >= threshold).length;
      expect(precision === null ? above : precision * above).toBeCloseTo(
        precision === null ? 0 : right,
        9,
      );
      expect((recall ?? 0) * yes.length).toBeCloseTo(right, 9);
      const steps = measureCalibration({ yes, no });
      const total = steps.reduce((sum, { share }) => sum + share, 0);
      const found = steps.reduce((sum, step) => sum + step.found * step.share, 0);
      const all = yes.length + no.length;
      expect(total).toBeCloseTo(all === 0 ? 0 : 1, 9);
      expect(found * all).toBeCloseTo(yes.length, 6);
    }),
  );
});

test('a spot check is worse only when its whole interval is on the wrong side of what was expected', () => {
  expect(shareApplying(0, 0)).toBeNull();
  // R 4.2.2 prop.test(45, 50, correct = FALSE): .7864 to .9565
  const found = shareApplying(45, 5)!;
  expect(found.interval.map((end) => Number(end.toFixed(3)))).toEqual([0.786, 0.957]);
  for (const [side, expected, worse] of [
    ['accepted', 0.95, false],
    ['accepted', 0.96, true],
    ['refused', 0.79, false],
    ['refused', 0.78, true],
  ] as const)
    expect(isWorseThanExpected(side, found, expected)).toBe(worse);
  expect(isWorseThanExpected('accepted', null, 1)).toBe(false);
});
