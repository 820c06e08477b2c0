import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addTo, emptyBitset, has } from '../groups/index.js';
import { randomSource } from '../statistics/index.js';
import { compareEstimates } from './compare.js';
import {
  addKnownPart,
  boundByParts,
  estimateAny,
  estimateOf,
  FEWEST_SAMPLED,
  sampleWithin,
} from './estimates.js';

const PEOPLE = 200;
const setOf = (members: Iterable<number>) => {
  const set = emptyBitset(PEOPLE);
  for (const one of members) addTo(set, one);
  return set;
};
/** A stream of numbers from 0 up to 1. */
const uniform = (seed: number) => {
  const next = randomSource(seed);
  return () => next() / 2 ** 32;
};

describe('the answers of a column’s people', () => {
  test('are those whom it holds, with those of the sample among them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1, max: PEOPLE - 1 }), { minLength: 1, maxLength: 300 }),
        fc.uniqueArray(fc.nat({ max: PEOPLE - 1 })),
        fc.infiniteStream(fc.boolean()),
        (people, members, draws) => {
          const drawn = people.flatMap((_, answer) =>
            draws.next().value === true ? [answer] : [],
          );
          const set = setOf(members);
          const weights = Float64Array.from({ length: PEOPLE }, (_, person) => person + 0.5);
          const within = sampleWithin(
            {
              people: Int32Array.from(people),
              sampled: Int32Array.from(drawn),
              isLearntFrom: true,
            },
            set,
            weights,
          );
          const answers = people.flatMap((person, answer) =>
            person >= 0 && has(set, person) ? [answer] : [],
          );
          const sampled = answers.filter((answer) => drawn.includes(answer));
          const present = people.filter((person) => person >= 0).length;
          if (answers.length < present && sampled.length < FEWEST_SAMPLED) {
            expect(within).toBeNull();
            return;
          }
          expect([...within!.answers]).toEqual(answers);
          expect(within!.sampled.map((place) => answers[place])).toEqual(sampled);
          expect(within!.ofSample.map((place) => drawn[place])).toEqual(sampled);
          expect([...within!.weights!]).toEqual(answers.map((answer) => people[answer]! + 0.5));
        },
      ),
    );
  });
});

describe('the share that mentions any of some codes', () => {
  const answers = 4000;
  const sampleSize = 200;
  const everybody = Int32Array.from({ length: answers }, (_, i) => i);
  /** Who mentions each of two codes, and what a model says that is right more often than not. */
  const population = (seed: number) => {
    const next = uniform(seed);
    return [0.2, 0.15].map((share) => {
      const truth = Uint8Array.from(everybody, () => Number(next() < share));
      const predicted = Float32Array.from(truth, (one) => 0.1 + 0.3 * next() + 0.45 * one);
      return { truth, predicted };
    });
  };
  const draw = (next: () => number) => {
    const drawn = new Set<number>();
    while (drawn.size < sampleSize) drawn.add(Math.floor(next() * answers));
    return [...drawn].sort((x, y) => x - y);
  };
  const estimateFrom = (
    codes: ReturnType<typeof population>,
    sampled: number[],
    weights: Float64Array | null = null,
  ) =>
    estimateAny(
      { answers: everybody, sampled, ofSample: sampled.map((_, k) => k), weights, parameters: 1 },
      codes.map(({ truth, predicted }) => ({
        mentioned: sampled.map((i) => truth[i]!),
        predicted,
      })),
    )!;

  test('is the true one, by models that know it', () => {
    const codes = population(1).map(({ truth }) => ({
      truth,
      predicted: Float32Array.from(truth),
    }));
    const [one, other] = codes;
    const weights = Float64Array.from(everybody, (i) => 1 + (i % 3));
    const either = everybody.map((i) => Number(one!.truth[i] === 1 || other!.truth[i] === 1));
    const share = (weightOf: (i: number) => number) =>
      either.reduce((sum, is, i) => sum + is * weightOf(i), 0) /
      either.reduce((sum, _, i) => sum + weightOf(i), 0);
    const sampled = draw(uniform(2));
    expect(estimateOf(estimateFrom(codes, sampled)).value).toBeCloseTo(
      share(() => 1),
      12,
    );
    expect(estimateOf(estimateFrom(codes, sampled, weights)).value).toBeCloseTo(
      share((i) => weights[i]!),
      12,
    );
  });

  // what a 95% interval says of itself; 400 draws: three standard errors are .033
  test('lies in its interval as often as that says, which the models make narrower', () => {
    const codes = population(3);
    const isMentioned = (i: number) => codes.some(({ truth }) => truth[i] === 1);
    const true_ = everybody.filter(isMentioned).length / answers;
    const next = uniform(4);
    const runs = 400;
    let [covered, width, plainWidth, sum] = [0, 0, 0, 0];
    for (let run = 0; run < runs; run++) {
      const { estimate, sampleInterval } = estimateFrom(codes, draw(next));
      const [low, high] = estimate!.interval;
      if (low <= true_ && true_ <= high) covered += 1;
      width += high - low;
      plainWidth += sampleInterval[1] - sampleInterval[0];
      sum += estimate!.value;
    }
    expect(Math.abs(covered / runs - 0.95)).toBeLessThan(0.033);
    expect(Math.abs(sum / runs - true_)).toBeLessThan(0.005);
    expect(width).toBeLessThan(0.9 * plainWidth);
  });

  test('is the sample’s own where no code has a model', () => {
    const [one] = population(5);
    const sampled = draw(uniform(6));
    const mentioned = sampled.map((i) => one!.truth[i]!);
    const share = estimateAny(
      {
        answers: everybody,
        sampled,
        ofSample: sampled.map((_, k) => k),
        weights: null,
        parameters: 1,
      },
      [{ mentioned, predicted: null }],
    )!;
    expect(share.estimate).toBeNull();
    expect(estimateOf(share)).toEqual({
      value: mentioned.filter((is) => is === 1).length / sampleSize,
      interval: share.sampleInterval,
    });
  });

  test('is a plain count where everybody is in the sample, and its interval is nothing but that', () => {
    const [one] = population(7);
    const share = estimateAny(
      {
        answers: everybody,
        sampled: [...everybody],
        ofSample: [...everybody],
        weights: null,
        parameters: 1,
      },
      [{ mentioned: one!.truth, predicted: one!.predicted }],
    )!;
    const counted = one!.truth.reduce((sum, is) => sum + is, 0) / answers;
    expect(share.sampleInterval).toEqual([counted, counted]);
    expect(estimateOf(share).value).toBeCloseTo(counted, 12);
    for (const end of estimateOf(share).interval) expect(end).toBeCloseTo(counted, 12);
  });

  // those settled were chosen for mentioning it: only the rest is estimated, from a check of its own
  test('with a part that is known holds the truth as often as it says, however that part was chosen', () => {
    const [one] = population(8);
    const { truth, predicted } = one!;
    const true_ = truth.reduce((sum, is) => sum + is, 0) / answers;
    const known = everybody.filter((i) => truth[i] === 1 && i % 3 === 0);
    const rest = everybody.filter((i) => !(truth[i] === 1 && i % 3 === 0));
    const next = uniform(9);
    const runs = 400;
    let [covered, sum] = [0, 0];
    for (let run = 0; run < runs; run++) {
      const drawn = new Set<number>();
      while (drawn.size < sampleSize) drawn.add(Math.floor(next() * rest.length));
      const sampled = [...drawn].sort((x, y) => x - y);
      const share = estimateAny(
        {
          answers: rest,
          sampled,
          ofSample: sampled.map((_, k) => k),
          weights: null,
          parameters: 1,
        },
        [{ mentioned: sampled.map((at) => truth[rest[at]!]!), predicted }],
      )!;
      const { value, interval } = estimateOf(
        addKnownPart(share, rest.length, { weight: known.length, mentioned: known.length }),
      );
      if (interval[0] <= true_ && true_ <= interval[1]) covered += 1;
      sum += value;
    }
    expect(Math.abs(covered / runs - 0.95)).toBeLessThan(0.033);
    expect(Math.abs(sum / runs - true_)).toBeLessThan(0.005);
  });

  test('differs between two halves that are alike as seldom as the level says', () => {
    const codes = population(10);
    const next = uniform(11);
    const runs = 400;
    let differing = 0;
    for (let run = 0; run < runs; run++) {
      const sampled = draw(next);
      // halves by chance, again each time: what they mention is the same but for that
      const half = Uint8Array.from(everybody, () => Number(next() < 0.5));
      const halves = [0, 1].map((side) => {
        const its = everybody.filter((i) => half[i] === side);
        const places = new Map(Array.from(its, (i, at) => [i, at] as const));
        const own = sampled.filter((i) => half[i] === side);
        const share = estimateAny(
          {
            answers: its,
            sampled: own.map((i) => places.get(i)!),
            ofSample: own.map((i) => sampled.indexOf(i)),
            weights: null,
            parameters: 1,
          },
          codes.map(({ truth, predicted }) => ({
            mentioned: sampled.map((i) => truth[i]!),
            predicted,
          })),
        )!;
        return { share: estimateOf(share).value, n: share.effective };
      });
      if (compareEstimates(halves[0]!, halves[1]!).p < 0.05) differing += 1;
    }
    expect(Math.abs(differing / runs - 0.05)).toBeLessThan(0.033);
  });
});

test('a theme is held between the greatest of its codes and their sum, and its interval holds it', () => {
  const share = fc
    .record({
      value: fc.double({ min: 0, max: 1, noNaN: true }),
      below: fc.double({ min: 0, max: 0.3, noNaN: true }),
      above: fc.double({ min: 0, max: 0.3, noNaN: true }),
    })
    .map(({ value, below, above }) => ({
      value,
      interval: [Math.max(0, value - below), Math.min(1, value + above)] as [number, number],
    }));
  fc.assert(
    fc.property(share, fc.array(share, { minLength: 1, maxLength: 5 }), (whole, parts) => {
      const { value, interval } = boundByParts(whole, parts);
      const sum = parts.reduce((all, one) => all + one.value, 0);
      for (const part of parts) expect(value).toBeGreaterThanOrEqual(part.value);
      expect(value).toBeLessThanOrEqual(Math.min(1, sum) + 1e-12);
      expect(interval[0]).toBeLessThanOrEqual(value);
      expect(interval[1]).toBeGreaterThanOrEqual(value);
      // one that was within is left as it is
      const isWithin =
        parts.every((part) => whole.value >= part.value) && whole.value <= Math.min(1, sum);
      if (isWithin) expect({ value, interval }).toEqual(whole);
    }),
  );
});
