import { has, type Bitset } from '../groups/index.js';
import { estimateShare, type EstimatedShare, type Interval } from '../statistics/index.js';

/** A group has an estimate of its own with so many of the random sample in it. */
export const FEWEST_SAMPLED = 30;

/** What is known of a code: of each of the random sample, and by models that did not see it of each answer. */
export interface SampledCode {
  /** 0 or 1 for each of the sample. */
  mentioned: ArrayLike<number>;
  /** By answer; null where too few of the sample mention the code. */
  predicted: Float32Array | null;
}

/** The answers that some people gave, with those of the random sample among them. */
export interface SampleWithin {
  /** Positions among all answers. */
  answers: Int32Array;
  /** Places of the sample: in `answers`, and in the whole sample. */
  sampled: number[];
  ofSample: number[];
  /** By place in `answers`; null for equal ones. */
  weights: Float64Array | null;
}

/**
 * The answers of a column's people.
 *
 * @param people by answer: where its respondent stands; −1 for one who has left, who is not estimated of
 * @param sampled positions of the random sample among the answers, in ascending order
 * @param weights by respondent; null for equal ones
 * @returns null where too few of the sample are in the column
 */
export function sampleWithin(
  people: Int32Array,
  sampled: Int32Array,
  members: Bitset,
  weights: Float64Array | null,
): SampleWithin | null {
  const answers = new Int32Array(people.length);
  const within = { sampled: [] as number[], ofSample: [] as number[] };
  let [count, next] = [0, 0];
  for (let answer = 0; answer < people.length; answer++) {
    const isSampled = sampled[next] === answer;
    const person = people[answer]!;
    if (person >= 0 && has(members, person)) {
      if (isSampled) {
        within.sampled.push(count);
        within.ofSample.push(next);
      }
      answers[count++] = answer;
    }
    if (isSampled) next += 1;
  }
  if (count < people.length && within.sampled.length < FEWEST_SAMPLED) return null;
  const given = answers.slice(0, count);
  return {
    ...{ ...within, answers: given },
    weights: weights && Float64Array.from(given, (answer) => weights[people[answer]!]!),
  };
}

/**
 * The share of answers that mention any of some codes. Of several the models say that one applies as if they were
 * independent: how wrong that is, the sample puts right.
 *
 * @see estimateShare
 */
export function estimateAny(
  { answers, sampled, ofSample, weights }: SampleWithin,
  codes: readonly SampledCode[],
): EstimatedShare | null {
  const models = codes.map(({ predicted }) => predicted).filter((model) => model !== null);
  // first that none of them applies, then that one does; a model at a time, which is several times as fast
  const predicted = new Float64Array(models.length === 0 ? 0 : answers.length).fill(1);
  for (const model of models)
    for (let i = 0; i < predicted.length; i++) predicted[i]! *= 1 - model[answers[i]!]!;
  for (let i = 0; i < predicted.length; i++) predicted[i] = 1 - predicted[i]!;
  return estimateShare({
    ...{ answers: answers.length, sampled, weights },
    truth: Uint8Array.from(ofSample, (place) =>
      Number(codes.some(({ mentioned }) => mentioned[place] === 1)),
    ),
    predicted: models.length === 0 ? null : predicted,
  });
}

/** A share with its interval: with the models' help, or where there is none by the sample alone. */
export const estimateOf = ({
  estimate,
  sampleShare,
  sampleInterval,
}: Pick<EstimatedShare, 'estimate' | 'sampleShare' | 'sampleInterval'>): {
  value: number;
  interval: Interval;
} => estimate ?? { value: sampleShare, interval: sampleInterval };
