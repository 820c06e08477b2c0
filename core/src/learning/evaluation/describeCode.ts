import {
  CROSS_FITTED,
  estimateShare,
  FEWEST_MENTIONED,
  type EstimatedShare,
} from '../../statistics/index.js';
import { likelyGain, type CurvePoint, type LikelyGain } from './curve.js';
import { weighWords, type WordShares, type WordWeight } from '../suggesting/evidence.js';
import type { CodeFits } from '../training/fitCodes.js';
import type { Material, TrainingInput } from '../training/material.js';
import { averagePrecision } from './metrics.js';
import { scoreByNearest, type Neighbours } from './nearest.js';
import type { Calibration } from './calibration.js';
import type { Reading } from '../suggesting/readAnswers.js';

/** Below this many examples a model is marked as weak. */
export const FEW_EXAMPLES = 10;
/** Suggestions below this probability are not kept; their sum is. */
export const LEAST_PROBABILITY = 0.05;

const MOST_WORDS = 20;
const MOST_MISTAKES = 6;
const MORE_ANSWERS = 50;

/** A settled answer that the model, not having seen it, gets most wrong. */
export interface Mistake {
  /** Position in `answers`. */
  answer: number;
  probability: number;
}

/** Figures of a code's model. */
export interface CodeFigures {
  codeId: string;
  state: 'weak' | 'ready';
  /** Settled answers with the code. */
  examples: number;
  /** Read suggestions of open answers that are learnt from besides: for it and against it. */
  decidedFor: number;
  decidedAgainst: number;
  /** Words that speak most for and against the code over all answers, by summed contribution. */
  wordsFor: WordWeight[];
  wordsAgainst: WordWeight[];
  curve: CurvePoint[];
  gain: LikelyGain | null;
  /** Average precision of the nearest coded answers on the same folds; null where there are too many to compare. */
  nearest: number | null;
  /** Without the code though likely, and with it though unlikely; the worst first. */
  wrongFor: Mistake[];
  wrongAgainst: Mistake[];
  share: EstimatedShare | null;
  /** Sum of the probabilities of the open answers that are too unlikely to be suggested. */
  unsuggested: number;
}

/** A code's models, calibrated, and what they say of all answers. */
export interface ReadCode {
  fits: CodeFits;
  calibration: Calibration;
  /** By place among the settled: probability by the model without its fold. */
  outOfFold: Float64Array;
  reading: Reading;
}

/** What the figures of all codes rest on. */
export interface OfAllCodes {
  shares: WordShares;
  neighbours: Neighbours | null;
}

/** Puts together what was measured of a code's models. */
export function describeCode(
  { input, settled, open }: Material,
  { fits, calibration, outOfFold, reading }: ReadCode,
  { shares, neighbours }: OfAllCodes,
): CodeFigures {
  const { codeId, examples, decided, settledLabels, foldOf, model, curve } = fits;
  const { probabilities } = reading;
  const sampled = sampledOf(input, settled);
  return {
    codeId,
    state: examples < FEW_EXAMPLES ? 'weak' : 'ready',
    examples,
    decidedFor: decided.filter((i) => input.answers[i]!.decided!.get(codeId)).length,
    decidedAgainst: decided.filter((i) => !input.answers[i]!.decided!.get(codeId)).length,
    ...weighWords(shares, model, calibration, MOST_WORDS),
    curve,
    gain: likelyGain(curve, MORE_ANSWERS),
    nearest:
      neighbours &&
      averagePrecision(scoreByNearest(neighbours, settledLabels, foldOf), settledLabels),
    wrongFor: mostWrong(settled, settledLabels, outOfFold, 0),
    wrongAgainst: mostWrong(settled, settledLabels, outOfFold, 1),
    share: estimateShare({
      answers: input.answers.length,
      sampled: sampled.map((place) => settled[place]!),
      truth: Uint8Array.from(sampled, (place) => settledLabels[place]!),
      predicted: reading.crossFitted,
      parameters: CROSS_FITTED,
    }),
    unsuggested: open.reduce(
      (sum, i) => sum + (probabilities[i]! < LEAST_PROBABILITY ? probabilities[i]! : 0),
      0,
    ),
  };
}

/** Places among the settled that were drawn at random. */
const sampledOf = (input: TrainingInput, settled: readonly number[]): number[] =>
  settled.flatMap((i, place) => (input.answers[i]!.random ? [place] : []));

/** Whether a share can be estimated with the models' help. */
export function canEstimate({ input, settled }: Material, { settledLabels }: CodeFits): boolean {
  const mentioned = sampledOf(input, settled).filter((place) => settledLabels[place] === 1);
  return mentioned.length >= FEWEST_MENTIONED;
}

function mostWrong(
  settled: readonly number[],
  labels: Uint8Array,
  outOfFold: Float64Array,
  label: 0 | 1,
): Mistake[] {
  const off = (place: number) => Math.abs(labels[place]! - outOfFold[place]!);
  return [...settled.keys()]
    .filter((place) => labels[place] === label && off(place) > 0.5)
    .sort((x, y) => off(y) - off(x) || x - y)
    .slice(0, MOST_MISTAKES)
    .map((place) => ({ answer: settled[place]!, probability: outOfFold[place]! }));
}
