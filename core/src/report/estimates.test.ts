import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addTo, emptyBitset, has } from '../groups/index.js';
import { randomSource } from '../statistics/index.js';
import { estimateAny, estimateOf, FEWEST_SAMPLED, sampleWithin } from './estimates.js';

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
            Int32Array.from(people),
            Int32Array.from(drawn),
            set,
            weights,
          );
          const answers = people.flatMap((person, answer) =>
            person >= 0 && has(set, person) ? [answer] : [],
          );
          const sampled = answers.filter((answer) => drawn.includes(answer));
          if (answers.length < people.length && sampled.length < FEWEST_SAMPLED) {
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
      { answers: everybody, sampled, ofSample: sampled.map((_, k) => k), weights },
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
      { answers: everybody, sampled, ofSample: sampled.map((_, k) => k), weights: null },
      [{ mentioned, predicted: null }],
    )!;
    expect(share.estimate).toBeNull();
    expect(estimateOf(share)).toEqual({
      value: mentioned.filter((is) => is === 1).length / sampleSize,
      interval: share.sampleInterval,
    });
  });
});
