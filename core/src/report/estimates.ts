import { has, type Bitset } from '../groups/index.js';
import {
  CROSS_FITTED,
  estimateShare,
  type EstimatedShare,
  type Interval,
} from '../statistics/index.js';

/** Members of the random sample that a group needs for an estimate of its own. */
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
  /** How many parameters were fitted to these of the sample, with the mean error. */
  parameters: number;
}

/** The answers to a question with those of a random sample among them. */
export interface SampledQuestion {
  /** By answer: where its respondent stands; −1 for one who has left, who is not estimated of. */
  people: Int32Array;
  /** Positions of the random sample among the answers, in ascending order. */
  sampled: Int32Array;
  /** Whether the models learnt from the sample, by cross-fitting, or from other answers. */
  isLearntFrom: boolean;
}

/**
 * The answers of a column's people. Of the parameters that were fitted to the whole sample its part takes its share.
 *
 * @param weights by respondent; null for equal ones
 * @returns null where too few of the sample are in the column
 */
export function sampleWithin(
  { people, sampled, isLearntFrom }: SampledQuestion,
  members: Bitset,
  weights: Float64Array | null,
): SampleWithin | null {
  const answers = new Int32Array(people.length);
  const within = { sampled: [] as number[], ofSample: [] as number[] };
  let [count, next, present] = [0, 0, 0];
  for (let answer = 0; answer < people.length; answer++) {
    const isSampled = sampled[next] === answer;
    const person = people[answer]!;
    if (person >= 0) present += 1;
    if (person >= 0 && has(members, person)) {
      if (isSampled) {
        within.sampled.push(count);
        within.ofSample.push(next);
      }
      answers[count++] = answer;
    }
    if (isSampled) next += 1;
  }
  if (count < present && within.sampled.length < FEWEST_SAMPLED) return null;
  const given = answers.slice(0, count);
  return {
    ...within,
    answers: given,
    parameters: isLearntFrom
      ? 1 + ((CROSS_FITTED - 1) * within.sampled.length) / sampled.length
      : 1,
    weights: weights && Float64Array.from(given, (answer) => weights[people[answer]!]!),
  };
}

/**
 * The share of answers that mention any of some codes. Of several the models say that one applies as if they were
 * independent: how wrong that is, the sample puts right.
 *
 * @param level of the intervals, 0 to 1
 * @see estimateShare
 */
export function estimateAny(
  { answers, sampled, ofSample, weights, parameters }: SampleWithin,
  codes: readonly SampledCode[],
  level?: number,
): EstimatedShare | null {
  const models = codes.map(({ predicted }) => predicted).filter((model) => model !== null);
  // first that none of them applies, then that one does; a model at a time, which is several times as fast
  const predicted = new Float64Array(models.length === 0 ? 0 : answers.length).fill(1);
  for (const model of models)
    for (let i = 0; i < predicted.length; i++) predicted[i]! *= 1 - model[answers[i]!]!;
  for (let i = 0; i < predicted.length; i++) predicted[i] = 1 - predicted[i]!;
  return estimateShare({
    answers: answers.length,
    sampled,
    weights,
    parameters,
    truth: Uint8Array.from(ofSample, (place) =>
      Number(codes.some(({ mentioned }) => mentioned[place] === 1)),
    ),
    predicted: models.length === 0 ? null : predicted,
    ...(level !== undefined && { level }),
  });
}

/** A share with its interval. */
export interface ShareEstimate {
  value: number;
  interval: Interval;
}

/** A share with its interval: with the models' help, or where there is none by the sample alone. */
export const estimateOf = ({
  estimate,
  sampleShare,
  sampleInterval,
}: Pick<EstimatedShare, 'estimate' | 'sampleShare' | 'sampleInterval'>): ShareEstimate =>
  estimate ?? { value: sampleShare, interval: sampleInterval };

/** People for whom it is known, from reading their answers: the sum of their weights, and of those who mention a code. */
export interface KnownPart {
  weight: number;
  mentioned: number;
}

/**
 * The share of a population of which one part was read and the other is estimated.
 *
 * @param rest the estimate for the other part
 * @param restWeight the sum of the weights of all in that part
 */
export function addKnownPart(
  rest: EstimatedShare,
  restWeight: number,
  { weight, mentioned }: KnownPart,
): EstimatedShare {
  const all = weight + restWeight;
  if (all === 0) return rest;
  const whole = (share: number) => (mentioned + restWeight * share) / all;
  const wholeInterval = ([low, high]: Interval): Interval => [whole(low), whole(high)];
  const { value } = estimateOf(rest);
  const variance = ((restWeight / all) ** 2 * (value * (1 - value))) / rest.effective;
  const spread = whole(value) * (1 - whole(value));
  return {
    ...rest,
    sampleShare: whole(rest.sampleShare),
    sampleInterval: wholeInterval(rest.sampleInterval),
    estimate: rest.estimate && {
      value: whole(rest.estimate.value),
      interval: wholeInterval(rest.estimate.interval),
    },
    effective: variance > 0 && spread > 0 ? spread / variance : (rest.effective * all) / restWeight,
  };
}

/**
 * The estimate for a theme, held to what those for its codes say: it is no less than any of theirs and no more than
 * their sum. Estimated apart, by the same sample but other models, it could be by chance. Its interval is widened
 * where it would no longer hold it.
 *
 * @param parts estimates for its codes in the same column
 */
export function boundByParts(
  whole: ShareEstimate,
  parts: readonly Pick<ShareEstimate, 'value'>[],
): ShareEstimate {
  const least = Math.max(0, ...parts.map(({ value }) => value));
  const most = Math.min(
    1,
    parts.reduce((sum, { value }) => sum + value, 0),
  );
  const value = Math.min(Math.max(whole.value, least), Math.max(most, least));
  const [low, high] = whole.interval;
  return { value, interval: [Math.min(low, value), Math.max(high, value)] };
}
