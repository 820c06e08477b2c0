import { calibrate, selectFeatures, type TrainingVectors } from './selectFeatures.js';
import type { UnseenOutcome } from '../evaluation/confusion.js';
import {
  canEstimate,
  describeCode,
  LEAST_PROBABILITY,
  type CodeFigures,
} from '../evaluation/describeCode.js';
import { plugInThreshold } from '../evaluation/metrics.js';
import { FEWEST_EXAMPLES, fitCodes, MOST_FITS, type TooFew } from './fitCodes.js';
import type { TrainingInput } from './material.js';
import {
  placeThresholds,
  type OwnOutcome,
  type PlacedThreshold,
} from '../evaluation/thresholds.js';
import { findNeighbours } from '../evaluation/nearest.js';
import { chunksOf, readAnswers } from '../suggesting/readAnswers.js';
import type { Suggestions } from '../suggesting/suggestions.js';

/** Progress of a training, in steps and in codes that have all their models. */
export interface TrainingProgress {
  done: number;
  of: number;
  codes: { done: number; of: number };
}

/** A code's model, before the thresholds of all codes are placed. */
type FittedCode = CodeFigures & {
  /** Open answers in scope with a probability of at least LEAST_PROBABILITY. */
  suggestions: Suggestions;
};
/** The result for one code. */
export type CodeResult = TooFew | (FittedCode & Pick<PlacedThreshold, 'threshold' | 'quality'>);

/** What the training of some codes of a question brings. */
export interface TrainedCodes {
  codes: (TooFew | FittedCode)[];
  /** Out-of-fold results on the settled answers. */
  outcomes: OwnOutcome[];
  /** For each code that enough of the random sample mention: by answer, probability by models that did not see it. */
  crossFitted: Map<string, Float32Array>;
}

export interface TrainingResult extends Pick<TrainedCodes, 'crossFitted'> {
  codes: CodeResult[];
  /** Out-of-fold results on the settled answers, for `findConfused`. */
  unseen: UnseenOutcome[];
}

/**
 * Trains the models of a question (`trainCodes`), and places the thresholds of all codes (`placeThresholds`).
 *
 * @param vectors of words and of texts; without them the models rest on words and character runs
 * @param onProgress called as the work goes on; may throw to stop
 */
export function trainQuestion(
  input: TrainingInput,
  vectors?: TrainingVectors,
  onProgress?: (progress: TrainingProgress) => void,
): TrainingResult {
  const trained = trainCodes(input, vectors, onProgress);
  return withThresholds(
    trained,
    placeThresholds(trained.outcomes, settledTextsOf(input), input.seed),
  );
}

/** What `placeThresholds` takes beside the outcomes. */
export const settledTextsOf = ({ answers }: Pick<TrainingInput, 'answers'>): string[] =>
  answers.flatMap(({ settled, text }) => (settled ? [text] : []));

/** The training of all codes of a question, with their thresholds. */
export function withThresholds(
  { codes, outcomes, crossFitted }: TrainedCodes,
  placed: readonly PlacedThreshold[],
): TrainingResult {
  const placedOf = new Map(placed.map((one) => [one.codeId, one]));
  return {
    codes: codes.map((code) => {
      if (code.state === 'too_few') return code;
      const { threshold, quality } = placedOf.get(code.codeId)!;
      return { ...code, threshold, quality };
    }),
    unseen: outcomes.map(({ codeId, settledLabels, outOfFold }) => ({
      codeId,
      threshold: placedOf.get(codeId)!.threshold,
      settledLabels,
      outOfFold,
    })),
    crossFitted,
  };
}

/**
 * Trains one binary model per code on the settled answers of a question and the codebook's own words,
 * measures each out-of-fold, calibrates it, and suggests codes for the answers that are not settled.
 *
 * An answer is a negative only when settled. Exact duplicates stay in one fold. Codebook texts are
 * learnt from in every fold and measured in none. Codes with excluded words of their own read all texts
 * without these.
 *
 * @param vectors of words and of texts; without them the models rest on words and character runs
 * @param onProgress called as the work goes on; may throw to stop
 */
export function trainCodes(
  input: TrainingInput,
  vectors: TrainingVectors = { table: null, sentences: null },
  onProgress: (progress: TrainingProgress) => void = () => {},
): TrainedCodes {
  const sets = codesByExcludedWords(input);
  const of = sets.reduce((sum, { codeIds }) => sum + stepsOf(input, codeIds.length), 0);
  let done = 0;
  const codes = { done: 0, of: countLearnable(input) };
  const step = (steps: number) =>
    onProgress({ done: Math.floor((done += steps)), of, codes: { ...codes } });
  const results = new Map<string, TrainedCodes['codes'][number]>();
  const outcomes: OwnOutcome[] = [];
  const themes = new Set(input.codes.flatMap(({ id, parts }) => (parts ? [id] : [])));
  const crossFitted = new Map<string, Float32Array>();
  for (const { excluded, codeIds } of sets) {
    const before = done;
    const material = selectFeatures(input, excluded, vectors, () => step(0));
    const neighbours = findNeighbours(material.x, material.settled, material.rowOf);
    step(READING_STEPS);
    const fitted = fitCodes(material, codeIds, (ofCode, isLast) => {
      if (isLast) codes.done += 1;
      step(MOST_FITS / ofCode);
    }).flatMap((fits) => {
      if (fits.state === 'fitted') return [fits];
      results.set(fits.codeId, fits);
      return [];
    });
    const calibrated = fitted.map((fits) => ({ fits, ...calibrate(fits) }));
    const { readings, shares } = readAnswers(
      material,
      calibrated.map(({ fits, calibration }) => ({
        codeId: fits.codeId,
        model: fits.model,
        foldOf: fits.foldOf,
        calibration,
        foldModels: canEstimate(material, fits) ? fits.foldModels : [],
      })),
      input.leastProbability ?? LEAST_PROBABILITY,
      () => step(1),
    );
    calibrated.forEach((one, k) => {
      const reading = readings[k]!;
      const figures = describeCode(material, { ...one, reading }, { shares, neighbours });
      const { codeId } = figures;
      results.set(codeId, { ...figures, suggestions: reading.suggestions });
      if (reading.crossFitted) crossFitted.set(codeId, reading.crossFitted);
      outcomes.push({
        codeId,
        ownThreshold: plugInThreshold(reading.probabilities),
        settledLabels: one.fits.settledLabels,
        outOfFold: one.outOfFold,
        isTheme: themes.has(codeId),
      });
    });
    done = before + stepsOf(input, codeIds.length);
    step(0);
  }
  return {
    codes: input.codes.flatMap(({ id }) => results.get(id) ?? []),
    outcomes,
    crossFitted,
  };
}

const READING_STEPS = 12;
const stepsOf = ({ answers }: TrainingInput, codes: number): number =>
  READING_STEPS + codes * MOST_FITS + chunksOf(answers.length);

/** How many of the wanted codes have enough examples. */
function countLearnable({ answers, codes, only }: TrainingInput): number {
  const settled = answers.filter((answer) => answer.settled);
  return codes.filter(
    ({ id }) =>
      (!only || only.has(id)) &&
      settled.filter((answer) => answer.codes.has(id)).length >= FEWEST_EXAMPLES,
  ).length;
}

/** Sets of codes with the same excluded words, in order of their first code. */
function codesByExcludedWords({ codes, only, excluded = [] }: TrainingInput) {
  const sets = new Map<string, { excluded: Set<string>; codeIds: string[] }>();
  for (const { id } of codes) {
    if (only && !only.has(id)) continue;
    const words = excluded.flatMap(({ word, codeId }) =>
      codeId === null || codeId === id ? [word] : [],
    );
    const key = [...new Set(words)].sort().join('\n');
    const set = sets.get(key);
    if (set) set.codeIds.push(id);
    else sets.set(key, { excluded: new Set(words), codeIds: [id] });
  }
  return [...sets.values()];
}
