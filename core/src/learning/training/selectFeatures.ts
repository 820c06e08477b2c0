import { sigmoid } from '../solver/linearModel.js';
import { fitCodes, type CodeFits } from './fitCodes.js';
import { latentTable } from '../features/latentTable.js';
import { readMaterial, type Material, type TrainingInput } from './material.js';
import { brierScore } from '../evaluation/metrics.js';
import { fitPlatt, type Calibration } from '../evaluation/calibration.js';
import type { WordTable } from '../features/wordTable.js';

/**
 * Answers of so many words on average are long: vectors of words in general then say nothing more, those made of the
 * answers themselves do.
 */
const LONG_TEXT_WORDS = 30;
const SHORT_TEXT_PENALTY_C = 4;
/** How much vectors of their own may count in long texts, with the penalty that goes with it (docs/decisions/0006-models.md). */
const LONG_TEXT_FEATURES = [
  { weight: 0.5, penaltyC: 4 },
  { weight: 4, penaltyC: 64 },
];
/** Codes by which features are compared, those with the most examples. */
const MOST_CODES_COMPARED = 12;

/**
 * Reads what is to be learnt from. How long texts are best read differs from question to question: they are read in
 * that manner in which the models of all codes together are least wrong on answers that they did not see. It rests on
 * the codes of the question, not on those that models are wanted of, so that it is the same on every thread.
 *
 * @param onFit called after each model; may throw to stop
 * @see Brier (1950) for the score
 */
export function selectFeatures(
  input: TrainingInput,
  struck: ReadonlySet<string>,
  table: WordTable | null,
  onFit: () => void,
): Material {
  const texts = input.answers.map(({ text }) => text);
  const words = texts.reduce((sum, text) => sum + text.split(/\s+/u).length, 0);
  if (words < LONG_TEXT_WORDS * texts.length)
    return readMaterial(input, struck, { table, penaltyC: SHORT_TEXT_PENALTY_C });
  const latent = latentTable(texts, struck);
  const materials = LONG_TEXT_FEATURES.map(({ weight, penaltyC }) =>
    readMaterial(input, struck, { table: { ...latent, weight }, penaltyC }),
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

/** Mean Brier score on answers unseen; the same for all manners where no code can be learnt. */
function meanBrierScore(material: Material, codeIds: readonly string[], onFit: () => void): number {
  const fitted = fitCodes(material, codeIds, onFit, { withCurve: false }).filter(
    (one) => one.state === 'fitted',
  );
  return fitted.reduce(
    (sum, fits) => sum + brierScore(calibrate(fits).outOfFold, fits.settledLabels) / fitted.length,
    0,
  );
}

/** Scores of answers unseen as probabilities. */
export function calibrate({ outOfFold, settledLabels }: CodeFits): {
  calibration: Calibration;
  outOfFold: Float64Array;
} {
  const calibration = fitPlatt(outOfFold, settledLabels, 1);
  const { slope, shift } = calibration;
  return { calibration, outOfFold: outOfFold.map((score) => sigmoid(slope * score + shift)) };
}
