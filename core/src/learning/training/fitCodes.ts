import {
  estimateShare,
  randomSource,
  shuffle,
  type EstimatedShare,
} from '../../statistics/index.js';
import type { CurvePoint } from '../evaluation/curve.js';
import { assignFolds, groupEqual } from './folds.js';
import { fitInterleaved, type FitJob } from '../solver/fitInterleaved.js';
import type { LinearModel } from '../solver/linearModel.js';
import type { LogisticFit } from '../solver/logistic.js';
import { labelledRowsOf, type Material } from './material.js';
import { averagePrecision } from '../evaluation/metrics.js';

/** Settled examples that a code needs before it gets a model. */
export const FEWEST_EXAMPLES = 3;

/**
 * Tolerances of models that are kept, and of those that are only measured. The latter start from a model that has seen
 * what they are measured on: with MANY_ROWS and more that changes average precision by less than .00003; with fewer, by
 * .0001, and up to .01 in a learning curve.
 */
const KEPT_TOLERANCE = 1e-7;
const MEASURED_TOLERANCE = 1e-4;
const MANY_ROWS = 1000;
const MOST_FOLDS = 5;
const CODEBOOK_IMPORTANCE = 3;
const CURVE_SHARES = [0.25, 0.5, 0.75];
/** Settled answers above which the curve is measured on two folds, or on one that holds as many answers. */
const MOST_ANSWERS_FOR_FULL_CURVE = 800;
const CURVE_FOLDS = 2;

/** Codes that are fitted before others begin: enough for their models to run side by side. */
const CODES_AT_ONCE = 16;

/** Most models that are fitted for one code. */
export const MOST_FITS = 1 + MOST_FOLDS * (1 + CURVE_SHARES.length);

export interface TooFew {
  codeId: string;
  state: 'too_few';
  examples: number;
  /** From the random sample alone; null without one. */
  share: EstimatedShare | null;
}

/** A code's model, and the models without each fold. */
export interface CodeFits {
  codeId: string;
  state: 'fitted';
  examples: number;
  /** Open answers with a decision on this code. */
  decided: number[];
  /** By index among the settled: label, fold, and score by the model without that fold. */
  settledLabels: Uint8Array;
  foldOf: Int32Array;
  outOfFold: Float64Array;
  model: LinearModel;
  foldModels: LinearModel[];
  curve: CurvePoint[];
}

/**
 * Fits the models of some codes: of all examples, without each fold, and of growing parts for the learning curve.
 *
 * @param onFit called after each model with how many its code will have, and whether it was the last of them; may throw
 *   to stop
 */
export function fitCodes(
  material: Material,
  codeIds: readonly string[],
  onFit: (of: number, isLast: boolean) => void,
  { withCurve = true }: { withCurve?: boolean } = {},
): (TooFew | CodeFits)[] {
  const order = withCurve ? curveOrder(material) : null;
  const planned = codeIds.map((codeId, i) =>
    planCode(material, order, codeId, { turn: Math.floor(i / CODES_AT_ONCE), onFit }),
  );
  fitInterleaved(
    material.x,
    planned.flatMap((plan) => (plan.state === 'planned' ? [plan.first] : [])),
  );
  return planned.map((plan) => (plan.state === 'planned' ? plan.fits() : plan));
}

/** A fold: indices among the settled that are held out, and the others. */
interface Fold {
  held: number[];
  seen: number[];
}

interface CodePlan {
  state: 'planned';
  /** The model of all examples; the others start from it. */
  first: FitJob;
  /** The result, once all are fitted. */
  fits: () => CodeFits;
}

function planCode(
  material: Material,
  order: Map<number, number> | null,
  codeId: string,
  { turn, onFit }: { turn: number; onFit: (of: number, isLast: boolean) => void },
): TooFew | CodePlan {
  const { input, keys, penaltyC, settled } = material;
  const decided = material.decided.filter((i) => input.answers[i]!.decided!.has(codeId));
  const settledLabels = Uint8Array.from(settled, (i) =>
    Number(input.answers[i]!.codes.has(codeId)),
  );
  const examples = settledLabels.reduce((sum, label) => sum + label, 0);
  if (examples < FEWEST_EXAMPLES) {
    const sampled = settled.flatMap((i, place) => (input.answers[i]!.random ? [place] : []));
    const share = estimateShare({
      answers: input.answers.length,
      sampled: sampled.map((place) => settled[place]!),
      truth: Uint8Array.from(sampled, (place) => settledLabels[place]!),
      predicted: null,
    });
    return { codeId, state: 'too_few', examples, share };
  }

  const { labels, importance, rowsOf, lessonRows } = labelRows(material, codeId, decided);
  const optionsFor = (answers: number[], from?: LogisticFit) => {
    const rows = rowsToLearn(answers, rowsOf, lessonRows);
    const tolerance = from && rows.length >= MANY_ROWS ? MEASURED_TOLERANCE : KEPT_TOLERANCE;
    return { rows, labels, importance, c: penaltyC, tolerance, ...(from && { from }) };
  };
  const settledKeys = settled.map((i) => keys[i]!);
  const folds = Math.min(MOST_FOLDS, examples);
  const foldOf = assignFolds(settledLabels, settledKeys, folds, input.seed);
  const parts = Array.from({ length: folds }, (_, fold): Fold => ({
    held: settled.flatMap((_, place) => (foldOf[place] === fold ? [place] : [])),
    seen: settled.filter((_, place) => foldOf[place] !== fold),
  }));
  const curve = order ? planCurve(material, order, parts) : NO_CURVE;
  const of = 1 + folds + curve.fits.length;
  let fitted = 0;
  const reportFit = () => onFit(of, ++fitted === of);

  let model: LinearModel;
  const foldModels: LinearModel[] = [];
  const outOfFold = new Float64Array(settled.length);
  const ofCurve = ({ answers, held, scores }: CurveFit, from: LogisticFit): FitJob => ({
    turn,
    options: optionsFor(answers, from),
    done: (fit) => {
      scoreInto(scores, held, fit, material);
      reportFit();
      return [];
    },
  });
  const first: FitJob = {
    turn,
    options: optionsFor([...settled, ...decided]),
    done: (whole) => {
      model = { weights: whole.weights, intercept: whole.intercept };
      reportFit();
      return parts.map(({ held, seen }, fold): FitJob => {
        const heldKeys = new Set(held.map((place) => settledKeys[place]!));
        const read = decided.filter((i) => !heldKeys.has(keys[i]!));
        return {
          turn,
          options: optionsFor([...seen, ...read], whole),
          done: (fit) => {
            foldModels[fold] = { weights: fit.weights, intercept: fit.intercept };
            scoreInto(outOfFold, held, fit, material);
            reportFit();
            return curve.fits.filter((one) => one.held === held).map((one) => ofCurve(one, fit));
          },
        };
      });
    },
  };
  const fits = (): CodeFits => ({
    codeId,
    state: 'fitted',
    examples,
    decided,
    settledLabels,
    foldOf,
    outOfFold,
    model,
    foldModels,
    curve: curve.measure(settledLabels, outOfFold),
  });
  return { state: 'planned', first, fits };
}

/** Labels and importances of rows for a code, and the rows of each answer. */
function labelRows(material: Material, codeId: string, decided: readonly number[]) {
  const { input, codebookExamples, settled, x } = material;
  const rows = x.count;
  const labels = new Uint8Array(rows);
  const importance = new Float64Array(rows).fill(1);
  const rowsOf = new Map<number, number[]>();
  const learnFrom = (answer: number, hasCode: boolean) => {
    const taught = labelledRowsOf(material, answer, codeId, hasCode);
    for (const { row, label } of taught) labels[row] = label;
    rowsOf.set(
      answer,
      taught.map(({ row }) => row),
    );
  };
  for (const i of settled) learnFrom(i, input.answers[i]!.codes.has(codeId));
  for (const i of decided) learnFrom(i, input.answers[i]!.decided!.get(codeId)!);
  const parts = input.codes.find(({ id }) => id === codeId)?.parts ?? [codeId];
  for (const lesson of codebookExamples) {
    labels[lesson.row] = Number(parts.includes(lesson.codeId));
    importance[lesson.row] = CODEBOOK_IMPORTANCE;
  }
  return { labels, importance, rowsOf, lessonRows: codebookExamples.map(({ row }) => row) };
}

function rowsToLearn(
  answers: readonly number[],
  rowsOf: ReadonlyMap<number, number[]>,
  lessonRows: readonly number[],
): Int32Array {
  const rows: number[] = [];
  for (const i of answers) for (const row of rowsOf.get(i)!) rows.push(row);
  rows.push(...lessonRows);
  return Int32Array.from(rows);
}

/** The random order in which settled answers enter the learning curve, duplicates together. */
const curveOrder = ({ input, keys, settled }: Material): Map<number, number> =>
  new Map(
    shuffle(groupEqual(settled.map((i) => keys[i]!)), randomSource(input.seed))
      .flat()
      .map((place, rank) => [settled[place]!, rank]),
  );

/** A fit of some answers that is measured on held-out ones. */
interface CurveFit {
  answers: number[];
  held: number[];
  scores: Float64Array;
}

const NO_CURVE = { fits: [], measure: (): CurvePoint[] => [] };

/** Models of a quarter, a half … of the answers, measured on the same held-out answers as the whole one. */
function planCurve({ settled }: Material, order: Map<number, number>, folds: readonly Fold[]) {
  const enough = Math.ceil((folds.length * MOST_ANSWERS_FOR_FULL_CURVE) / settled.length);
  const used =
    settled.length > MOST_ANSWERS_FOR_FULL_CURVE
      ? folds.slice(0, Math.min(CURVE_FOLDS, enough))
      : folds;
  const parts = CURVE_SHARES.map((share) => ({ share, scores: new Float64Array(settled.length) }));
  const fits = used.flatMap(({ held, seen }): CurveFit[] => {
    const inOrder = seen.toSorted((x, y) => order.get(x)! - order.get(y)!);
    return parts.map(({ share, scores }) => ({
      held,
      scores,
      answers: inOrder.slice(0, Math.round(share * seen.length)),
    }));
  });
  const measure = (settledLabels: Uint8Array, whole: Float64Array): CurvePoint[] => {
    const held = used.flatMap((fold) => fold.held);
    const labels = Uint8Array.from(held, (place) => settledLabels[place]!);
    const seenOnAverage = used.reduce((sum, fold) => sum + fold.seen.length, 0) / used.length;
    return [...parts, { share: 1, scores: whole }].map(({ share, scores }) => ({
      answers: Math.round(share * seenOnAverage),
      averagePrecision: averagePrecision(
        Float64Array.from(held, (place) => scores[place]!),
        labels,
      ),
    }));
  };
  return { fits, measure };
}

/** The score of an answer is that of its most likely line. */
function scoreInto(
  scores: Float64Array,
  held: readonly number[],
  fit: LogisticFit,
  { settled, unitsOf }: Material,
) {
  for (const place of held) {
    let best = -Infinity;
    for (const row of unitsOf.get(settled[place]!)!) best = Math.max(best, fit.scores[row]!);
    scores[place] = best;
  }
}
