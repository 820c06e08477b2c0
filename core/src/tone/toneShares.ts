import { CROSS_FITTED, estimateShare, type EstimatedShare } from '../statistics/index.js';

/** The tone of lines as far as it is known. Every array has a number a line. */
export interface ToneMaterial {
  /** 1 where a person found the line positive or negative; a mixed one is both. */
  isPositive: Uint8Array;
  isNegative: Uint8Array;
  /** How likely each is by models that did not see the line; null where none are measured. */
  positive: Float32Array | null;
  negative: Float32Array | null;
}

/** What one person said of a theme. */
export interface SpokenOf {
  lines: readonly number[];
  /** Whether the answer is in the random sample, all of whose lines a person read. */
  isSampled: boolean;
  weight: number;
}

/** How people speak of something: shares of those who speak of it. */
export interface ToneShares {
  people: number;
  sampled: number;
  positive: EstimatedShare | null;
  negative: EstimatedShare | null;
}

/** With fewer of the sample who speak of it nothing is said. */
export const FEWEST_SPOKEN = 10;

/**
 * The shares of people who speak of something positively and negatively: with at least one line of that tone. They rest
 * on a random sample that people read, put right by the models where these are measured.
 *
 * @returns null in the place of a share for which too few of the sample speak of it
 * @see estimateShare
 */
export function toneShares(
  spoken: readonly SpokenOf[],
  { isPositive, isNegative, positive, negative }: ToneMaterial,
): ToneShares {
  const sampled = spoken.flatMap(({ isSampled }, i) => (isSampled ? [i] : []));
  const isWeighted = spoken.some(({ weight }) => weight !== 1);
  const estimate = (found: Uint8Array, likely: Float32Array | null): EstimatedShare | null => {
    if (sampled.length < FEWEST_SPOKEN) return null;
    return estimateShare({
      answers: spoken.length,
      sampled,
      truth: sampled.map((i) => Number(spoken[i]!.lines.some((line) => found[line] === 1))),
      predicted: likely && spoken.map(({ lines }) => anyOf(lines, likely)),
      weights: isWeighted ? spoken.map(({ weight }) => weight) : null,
      parameters: likely ? CROSS_FITTED : 1,
    });
  };
  return {
    people: spoken.length,
    sampled: sampled.length,
    positive: estimate(isPositive, positive),
    negative: estimate(isNegative, negative),
  };
}

/** How likely at least one of some lines is, taken to be independent of each other. */
const anyOf = (lines: readonly number[], likely: Float32Array): number =>
  1 - lines.reduce((none, line) => none * (1 - likely[line]!), 1);
