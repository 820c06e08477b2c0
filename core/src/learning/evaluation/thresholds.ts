import { duplicateKey } from '../../text/index.js';
import { sigmoid } from '../solver/linearModel.js';
import { measureQuality, resample, type MeasuredQuality } from './measureQuality.js';
import { bestF1Threshold } from './metrics.js';

/** What a code's model says of the settled answers that it did not see, and where its own threshold is. */
export interface OwnOutcome {
  codeId: string;
  /** The threshold with the highest expected F1 of the code by itself. */
  ownThreshold: number;
  settledLabels: Uint8Array;
  outOfFold: Float64Array;
  /** Whether it is a theme, whose answers its codes have counted already. */
  isTheme: boolean;
}

/** A code's default threshold, and its quality there. */
export interface PlacedThreshold {
  codeId: string;
  threshold: number;
  quality: MeasuredQuality;
}

/** Where probabilities are 0 or 1 the mean of two thresholds is taken as if they were this near to it. */
const LEAST = 1e-4;

/**
 * Places the default threshold of every code of a question: between its own, at which its F1 is expected to be highest,
 * and the one at which F1 over all codes together was highest out of fold, by the mean of their log-odds. A threshold
 * laid by a few examples is mostly chance, and codes with few examples lend each other theirs. Measured:
 * docs/notes/learning.md.
 *
 * @param settledTexts texts of the settled answers, in the order of the outcomes
 * @param seed of the resampling that the interval of F1 rests on
 * @see Lipton, Elkan & Naryanaswamy (2014) Optimal thresholding of classifiers to maximize F1 measure: F1 over all codes
 *   is highest where all have the same threshold
 */
export function placeThresholds(
  outcomes: readonly OwnOutcome[],
  settledTexts: readonly string[],
  seed: number,
): PlacedThreshold[] {
  const ofCodes = outcomes.filter(({ isTheme }) => !isTheme);
  const shared = ofCodes.length === 0 ? null : sharedThreshold(ofCodes);
  const resampled = resample(settledTexts.map(duplicateKey), seed);
  return outcomes.map(({ codeId, ownThreshold, settledLabels, outOfFold }) => {
    const threshold = shared === null ? ownThreshold : between(ownThreshold, shared);
    return {
      codeId,
      threshold,
      quality: measureQuality(outOfFold, settledLabels, threshold, resampled),
    };
  });
}

/** The threshold with the highest F1 over all codes together. */
function sharedThreshold(outcomes: readonly OwnOutcome[]): number {
  const count = outcomes.reduce((sum, { outOfFold }) => sum + outOfFold.length, 0);
  const p = new Float64Array(count);
  const labels = new Uint8Array(count);
  let at = 0;
  for (const { outOfFold, settledLabels } of outcomes) {
    p.set(outOfFold, at);
    labels.set(settledLabels, at);
    at += outOfFold.length;
  }
  return bestF1Threshold(p, labels);
}

const between = (one: number, other: number): number =>
  sigmoid((logOddsOf(one) + logOddsOf(other)) / 2);

function logOddsOf(p: number): number {
  const inside = Math.min(1 - LEAST, Math.max(LEAST, p));
  return Math.log(inside / (1 - inside));
}
