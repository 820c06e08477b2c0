import { sigmoid } from '../solver/linearModel.js';
import { fitCodes, type CodeFits } from './fitCodes.js';
import { latentTable } from '../features/latentTable.js';
import { readMaterial, type Material, type TrainingInput } from './material.js';
import { brierScore } from '../evaluation/metrics.js';
import { fitPlatt, type Calibration } from '../evaluation/calibration.js';
import {
  NO_SENTENCES,
  drawnToNeighbours,
  sentenceBlock,
  type SentenceVectors,
} from '../../sentences/index.js';
import type { WordTable } from '../features/wordTable.js';

/**
 * Mean number of words from which answers are long: general embeddings then add nothing, latent vectors of the answers
 * themselves do.
 */
const LONG_TEXT_WORDS = 30;
const SHORT_TEXT_PENALTY_C = 4;
/** Weights of latent vectors that are compared, each with its penalty (docs/notes/learning.md). */
const LONG_TEXT_FEATURES = [
  { weight: 0.5, penaltyC: 4 },
  { weight: 4, penaltyC: 64 },
];
/** Codes by which features are compared, those with the most examples. */
const MOST_CODES_COMPARED = 12;

/** What is known of words and texts before anything is learnt from answers; null for what there is not. */
export interface TrainingVectors {
  table: WordTable | null;
  sentences: SentenceVectors | null;
}

/**
 * Reads the training material. For long texts the best features differ from question to question: those are taken whose
 * models have the lowest mean Brier score out of fold. All codes of the question are compared, not only those that this
 * thread trains, so that every thread selects the same.
 *
 * @param onFit called after each model; may throw to stop
 * @see Brier (1950) for the score
 */
export function selectFeatures(
  input: TrainingInput,
  excluded: ReadonlySet<string>,
  { table, sentences }: TrainingVectors,
  onFit: () => void,
): Material {
  const texts = input.answers.map(({ text }) => text);
  const words = texts.reduce((sum, text) => sum + text.split(/\s+/u).length, 0);
  if (words < LONG_TEXT_WORDS * texts.length)
    return readMaterial(input, excluded, {
      table,
      sentences: drawnToNeighbours(sentenceBlock(sentences, texts, excluded), texts),
      penaltyC: SHORT_TEXT_PENALTY_C,
    });
  const latent = latentTable(texts, excluded);
  const materials = LONG_TEXT_FEATURES.map(({ weight, penaltyC }) =>
    readMaterial(input, excluded, {
      table: { ...latent, weight },
      sentences: NO_SENTENCES,
      penaltyC,
    }),
  );
  const asked = mostExamples(input);
  const scores = materials.map((material) => meanBrierScore(material, asked, onFit));
  return materials[scores.indexOf(Math.min(...scores))]!;
}

function mostExamples({ answers, codes }: TrainingInput): string[] {
  const examples = new Map(codes.map(({ id }) => [id, 0]));
  for (const answer of answers)
    if (answer.settled)
      for (const id of answer.codes) examples.set(id, (examples.get(id) ?? 0) + 1);
  return codes
    .map(({ id }) => id)
    .toSorted((x, y) => examples.get(y)! - examples.get(x)!)
    .slice(0, MOST_CODES_COMPARED);
}

/** Mean Brier score out of fold; 0 where no code can be learnt. */
function meanBrierScore(material: Material, codeIds: readonly string[], onFit: () => void): number {
  const fitted = fitCodes(material, codeIds, onFit, { withCurve: false }).filter(
    (one) => one.state === 'fitted',
  );
  return fitted.reduce(
    (sum, fits) => sum + brierScore(calibrate(fits).outOfFold, fits.settledLabels) / fitted.length,
    0,
  );
}

/** Calibrates out-of-fold scores to probabilities. */
export function calibrate({ outOfFold, settledLabels }: CodeFits): {
  calibration: Calibration;
  outOfFold: Float64Array;
} {
  const calibration = fitPlatt(outOfFold, settledLabels, 1);
  const { slope, shift } = calibration;
  return { calibration, outOfFold: outOfFold.map((score) => sigmoid(slope * score + shift)) };
}
