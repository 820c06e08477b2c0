import {
  differenceEstimate,
  randomSource,
  shuffle,
  wilsonInterval,
  type Interval,
} from '../statistics/index.js';
import { weighWords, type WordWeight } from './evidence.js';
import { likelyGain, type CurvePoint, type LikelyGain } from './curve.js';
import { dealFolds, groupEqual } from './folds.js';
import { learner, type Fit } from './learner.js';
import { sigmoid, type LinearModel } from './logistic.js';
import { lessonsOf, type Material } from './material.js';
import { measureQuality, type MeasuredQuality } from './measureQuality.js';
import { averagePrecision, bestF1Line, plugInLine } from './metrics.js';
import { askNearest, type Neighbours } from './nearest.js';
import { fitPlatt, type Calibration } from './platt.js';

/** Settled examples that a code needs before it gets a model. */
export const FEWEST_EXAMPLES = 5;
/** Below this many examples a model is marked as weak. */
export const FEW_EXAMPLES = 10;
/** Suggestions below this probability are not kept; their sum is. */
export const LEAST_PROBABILITY = 0.05;

/**
 * How near to the best weights a model must come that is kept, and one that is only measured. The latter begins from
 * the one that is kept, which has seen what it is measured on: at 1e−4 that still showed, by .0005 of average precision.
 */
const kept = 1e-7;
const measured = 1e-5;
const mostFolds = 5;
const codebookImportance = 3;
const mostWords = 20;
const mostMistakes = 6;
const curveShares = [0.25, 0.5, 0.75];
/** With more settled answers than this, two folds show the curve as well as five. */
const curveInFull = 800;
const moreAnswers = 50;
/** With fewer who mention a code in the sample, a model's help is not to be trusted. */
const fewestForEstimate = 5;

/** A settled answer that the model, not having seen it, gets most wrong. */
export interface Mistake {
  /** Position in `answers`. */
  answer: number;
  probability: number;
}

/** A code's share among all answers, estimated from a random sample. */
export interface EstimatedShare {
  /** How many were drawn at random and settled, and how many of these mention the code. */
  sampled: number;
  mentioned: number;
  sampleInterval: Interval;
  /** With the model's help; null where too few of the sample mention the code. */
  estimate: { value: number; interval: Interval } | null;
}

/** What was measured of a code's model. */
export interface CodeFigures {
  codeId: string;
  state: 'weak' | 'ready';
  /** Settled answers with the code. */
  examples: number;
  /** Read suggestions of open answers that are learnt from besides: for it and against it. */
  decidedFor: number;
  decidedAgainst: number;
  quality: MeasuredQuality;
  /** Default line: where one would trust the model. */
  line: number;
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

/** A code's model, and what it says. */
export interface FittedCode {
  codeId: string;
  figures: CodeFigures;
  model: LinearModel;
  calibration: Calibration;
  /** One an answer; of a settled one by models that did not see it. */
  probabilities: Float64Array;
  /** By place among the settled: whether the code stands there, and its probability unseen. */
  settledLabels: Uint8Array;
  outOfFold: Float64Array;
}

export type CodeFit = FittedCode | TooFew;
export interface TooFew {
  codeId: string;
  state: 'too_few';
  examples: number;
}

/** Fits a code's model, measures it on settled answers that it did not see, and calibrates it. */
export function fitCode(
  material: Material,
  codeId: string,
  neighbours: Neighbours | null,
): CodeFit {
  const { input, keys, x, penaltyC, gram, shares, settled, open } = material;
  const decided = input.answers.flatMap(({ settled, decided }, i) =>
    !settled && decided?.has(codeId) ? [i] : [],
  );
  const settledLabels = Uint8Array.from(settled, (i) =>
    Number(input.answers[i]!.codes.has(codeId)),
  );
  const examples = settledLabels.reduce((sum, label) => sum + label, 0);
  if (examples < FEWEST_EXAMPLES) return { codeId, state: 'too_few', examples };

  const { labels, importance, rowsOf, lessonRows } = teach(material, codeId, decided);
  const learn = learner(x, gram);
  const fit = (answers: number[], from?: Fit) => {
    const rows = Int32Array.from([...answers.flatMap((i) => rowsOf.get(i)!), ...lessonRows]);
    return learn(
      { rows, labels, importance, c: penaltyC, tolerance: from ? measured : kept },
      from,
    );
  };
  const model = fit([...settled, ...decided]);

  const settledKeys = settled.map((i) => keys[i]!);
  const folds = Math.min(mostFolds, examples);
  const foldOf = dealFolds(settledLabels, settledKeys, folds, input.seed);
  const parts = Array.from({ length: folds }, (_, fold) => {
    const held = settled.flatMap((_, place) => (foldOf[place] === fold ? [place] : []));
    const heldKeys = new Set(held.map((place) => settledKeys[place]!));
    const seen = settled.filter((_, place) => foldOf[place] !== fold);
    const read = decided.filter((i) => !heldKeys.has(keys[i]!));
    return { held, seen, model: fit([...seen, ...read], model) };
  });
  const scores = new Float64Array(settled.length);
  for (const { held, model } of parts) scoreInto(scores, held, model, material);
  const calibration = fitPlatt(scores, settledLabels, 1);
  const asProbability = (score: number) => sigmoid(calibration.slope * score + calibration.shift);
  const outOfFold = scores.map(asProbability);

  const all = [...input.answers.keys()];
  const probabilities = scoreAnswers(model, material, all).map(asProbability);
  const line = (bestF1Line(outOfFold, settledLabels) + plugInLine(probabilities)) / 2;
  settled.forEach((i, place) => {
    probabilities[i] = outOfFold[place]!;
  });

  const sampled = settled.flatMap((i, place) => (input.answers[i]!.random ? [place] : []));
  const crossFitted = () => crossFit(material, parts, foldOf, asProbability);
  const curve = learningCurve(material, { settledLabels, parts, scores, fit, model });
  const figures: CodeFigures = {
    codeId,
    state: examples < FEW_EXAMPLES ? 'weak' : 'ready',
    examples,
    decidedFor: decided.filter((i) => input.answers[i]!.decided!.get(codeId)).length,
    decidedAgainst: decided.filter((i) => !input.answers[i]!.decided!.get(codeId)).length,
    quality: measureQuality(outOfFold, settledLabels, line, settledKeys, input.seed),
    line,
    ...weighWords(shares, model.linear(), calibration, mostWords),
    curve,
    gain: likelyGain(curve, moreAnswers),
    nearest:
      neighbours && averagePrecision(askNearest(neighbours, settledLabels, foldOf), settledLabels),
    wrongFor: mostWrong(settled, settledLabels, outOfFold, 0),
    wrongAgainst: mostWrong(settled, settledLabels, outOfFold, 1),
    share: estimateShare(sampled, settled, settledLabels, crossFitted),
    unsuggested: open.reduce(
      (sum, i) => sum + (probabilities[i]! < LEAST_PROBABILITY ? probabilities[i]! : 0),
      0,
    ),
  };
  return {
    ...{ codeId, figures, model: model.linear(), calibration },
    ...{ probabilities, settledLabels, outOfFold },
  };
}

/** What each row teaches of a code and how much it counts, and which rows stand for each answer. */
function teach(material: Material, codeId: string, decided: readonly number[]) {
  const { input, lessons, settled, x } = material;
  const rows = x.start.length - 1;
  const labels = new Uint8Array(rows);
  const importance = new Float64Array(rows).fill(1);
  const rowsOf = new Map<number, number[]>();
  const learnFrom = (answer: number, hasCode: boolean) => {
    const taught = lessonsOf(material, answer, codeId, hasCode);
    for (const { row, label } of taught) labels[row] = label;
    rowsOf.set(
      answer,
      taught.map(({ row }) => row),
    );
  };
  for (const i of settled) learnFrom(i, input.answers[i]!.codes.has(codeId));
  for (const i of decided) learnFrom(i, input.answers[i]!.decided!.get(codeId)!);
  const lessonRows = lessons.map((lesson, i) => {
    const row = input.answers.length + i;
    labels[row] = Number(lesson.codeId === codeId);
    importance[row] = codebookImportance;
    return row;
  });
  return { labels, importance, rowsOf, lessonRows };
}

/**
 * The probability of every answer by models that did not see it. One whose words are those of a settled one is asked
 * of the model that did not see these words either: otherwise the settled ones would be further off than the others.
 */
function crossFit(
  material: Material,
  parts: readonly { model: Fit }[],
  foldOf: Int32Array,
  asProbability: (score: number) => number,
): Float64Array {
  const { input, keys, settled } = material;
  const unseenBy = new Map(settled.map((i, place) => [keys[i]!, foldOf[place]!]));
  const all = [...input.answers.keys()];
  const sums = new Float64Array(all.length);
  const asked = new Float64Array(all.length);
  parts.forEach((part, fold) => {
    scoreAnswers(part.model, material, all).forEach((score, i) => {
      const only = unseenBy.get(keys[i]!);
      if (only !== undefined && only !== fold) return;
      sums[i]! += asProbability(score);
      asked[i]! += 1;
    });
  });
  return sums.map((sum, i) => sum / asked[i]!);
}

/** An answer scores as its likeliest line does. */
function scoreAnswers(model: Fit, { unitsOf }: Material, answers: readonly number[]): Float64Array {
  const units = answers.map((i) => unitsOf[i]!);
  const rows = new Int32Array(units.reduce((sum, one) => sum + one.length, 0));
  let at = 0;
  for (const one of units) {
    rows.set(one, at);
    at += one.length;
  }
  const scores = model.score(rows);
  at = 0;
  return Float64Array.from(units, ({ length }) => {
    let best = scores[at++]!;
    for (let line = 1; line < length; line++) best = Math.max(best, scores[at++]!);
    return best;
  });
}

function scoreInto(scores: Float64Array, held: readonly number[], model: Fit, material: Material) {
  const answers = held.map((place) => material.settled[place]!);
  scoreAnswers(model, material, answers).forEach((score, k) => {
    scores[held[k]!] = score;
  });
}

/** Measures models of a quarter, a half … of the answers on the same held-out answers as the whole one. */
function learningCurve(
  material: Material,
  {
    settledLabels,
    parts,
    scores,
    fit,
    model,
  }: {
    settledLabels: Uint8Array;
    parts: { held: number[]; seen: number[] }[];
    scores: Float64Array;
    fit: (answers: number[], from?: Fit) => Fit;
    model: Fit;
  },
): CurvePoint[] {
  const { input, keys, settled } = material;
  const used = settled.length > curveInFull ? parts.slice(0, 2) : parts;
  const held = used.flatMap((part) => part.held);
  const labels = Uint8Array.from(held, (place) => settledLabels[place]!);
  const seenOnAverage = used.reduce((sum, part) => sum + part.seen.length, 0) / used.length;
  const order = new Map(
    shuffle(groupEqual(settled.map((i) => keys[i]!)), randomSource(input.seed))
      .flat()
      .map((place, rank) => [settled[place]!, rank]),
  );
  const pointOf = (answers: number, scored: Float64Array): CurvePoint => ({
    answers: Math.round(answers),
    averagePrecision: averagePrecision(
      Float64Array.from(held, (place) => scored[place]!),
      labels,
    ),
  });
  const points = curveShares.flatMap((share) => {
    const scored = new Float64Array(settled.length);
    for (const { held, seen } of used) {
      const first = seen
        .toSorted((x, y) => order.get(x)! - order.get(y)!)
        .slice(0, Math.round(share * seen.length));
      scoreInto(scored, held, fit(first, model), material);
    }
    return [pointOf(share * seenOnAverage, scored)];
  });
  return [...points, pointOf(seenOnAverage, scores)];
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
    .slice(0, mostMistakes)
    .map((place) => ({ answer: settled[place]!, probability: outOfFold[place]! }));
}

/**
 * The difference estimate, with Wilson's interval at the size of sample that would be as exact: the normal one is
 * too narrow where the model is seldom wrong (coverage .88 in place of .95 with 60 sampled). For the same reason the
 * model is held to have been wrong by at least half an answer.
 */
function estimateShare(
  sampled: readonly number[],
  settled: readonly number[],
  labels: Uint8Array,
  crossFitted: () => Float64Array,
): EstimatedShare | null {
  const n = sampled.length;
  if (n < 2) return null;
  const truth = Uint8Array.from(sampled, (place) => labels[place]!);
  const mentioned = truth.reduce((sum, label) => sum + label, 0);
  const share = { sampled: n, mentioned, sampleInterval: wilsonInterval(mentioned / n, n) };
  if (mentioned < fewestForEstimate) return { ...share, estimate: null };
  const predicted = crossFitted();
  const positions = sampled.map((place) => settled[place]!);
  const { value, standardError } = differenceEstimate(predicted, positions, truth)!;
  const leastVariance = ((1 - n / predicted.length) * 0.5) / ((n - 1) * n);
  const variance = Math.max(standardError ** 2, leastVariance);
  const interval: Interval =
    variance === 0 ? [value, value] : wilsonInterval(value, (value * (1 - value)) / variance);
  return { ...share, estimate: { value, interval } };
}
