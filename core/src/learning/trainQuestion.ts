import { duplicateKey } from '../text/index.js';
import { randomSource, wilsonInterval, type Interval } from '../statistics/index.js';
import { explain, type WordPart } from './evidence.js';
import { learnVocabulary, stack, vectorise, type SparseRows, type TextVector } from './features.js';
import { dealFolds, groupEqual } from './folds.js';
import { fitLogistic, scoreRows, sigmoid, type LinearModel } from './logistic.js';
import {
  averagePrecision,
  bestF1Line,
  brierScore,
  f1,
  outcomeAt,
  plugInLine,
  precision,
  recall,
} from './metrics.js';
import { fitPlatt, type Calibration } from './platt.js';

/** Settled examples that a code needs before it gets a model. */
export const FEWEST_EXAMPLES = 5;
/** Below this many examples a model is marked as weak. */
export const FEW_EXAMPLES = 10;
/** Suggestions below this probability are not kept; their sum is. */
export const LEAST_PROBABILITY = 0.05;

const penaltyC = 4;
const mostFolds = 5;
const codebookImportance = 3;

/** What the models of one question learn from. */
export interface TrainingInput {
  /** All substantive answers to the question, in a fixed order. */
  answers: { text: string; settled: boolean; codes: ReadonlySet<string> }[];
  codes: { id: string; name: string; definition: string; include: string }[];
  /** Decides the folds and the resampling; the same seed gives the same models to the last bit. */
  seed: number;
}

export interface TrainingProgress {
  done: number;
  of: number;
}

/** Quality at the default line, measured out-of-fold on settled answers. */
export interface MeasuredQuality {
  precision: number;
  precisionInterval: Interval;
  recall: number;
  recallInterval: Interval;
  f1: number;
  f1Interval: Interval;
  averagePrecision: number;
  brier: number;
}

/** What training brought for one code. */
export type CodeResult =
  | { codeId: string; state: 'too_few'; examples: number }
  | {
      codeId: string;
      state: 'weak' | 'ready';
      examples: number;
      quality: MeasuredQuality;
      /** Default line: where one would trust the model. */
      line: number;
      /** Words that speak most for and against the code over all answers, by summed contribution. */
      wordsFor: WordWeight[];
      wordsAgainst: WordWeight[];
      /** Open answers with a probability of at least LEAST_PROBABILITY. */
      suggestions: Suggestion[];
      /** Sum of the probabilities of the other open answers. */
      unsuggested: number;
    };

export interface WordWeight {
  word: string;
  /** Mean contribution to the log-odds over the answers that use the word. */
  weight: number;
  answers: number;
}

export interface Suggestion {
  /** Position in `answers`. */
  answer: number;
  probability: number;
  /** The words that spoke most for it, strongest first, as contributions to the log-odds. */
  evidence: WordPart[];
}

/**
 * Trains one binary model per code on the settled answers of a question and the codebook's own words,
 * measures each out-of-fold, calibrates it, and suggests codes for the answers that are not settled.
 *
 * An answer is a negative only when settled. Exact duplicates stay in one fold. Codebook texts are
 * learnt from in every fold and measured in none.
 *
 * @param onCode called after each code; may throw to stop
 */
export function trainQuestion(
  input: TrainingInput,
  onCode: (progress: TrainingProgress) => void = () => {},
): CodeResult[] {
  const texts = input.answers.map((answer) => answer.text);
  const vocabulary = learnVocabulary(texts);
  const keys = texts.map(duplicateKey);
  const lessons = codebookLessons(input, new Set(keys));
  const vectors = [...texts, ...lessons.map((lesson) => lesson.text)].map((text) =>
    vectorise(text, vocabulary),
  );
  const material: Material = {
    input,
    keys,
    lessons,
    vectors,
    x: stack(vectors, vocabulary.idf.length),
    settled: input.answers.flatMap((answer, i) => (answer.settled ? [i] : [])),
  };
  return input.codes.map((code, done) => {
    const result = trainCode(material, code.id);
    onCode({ done: done + 1, of: input.codes.length });
    return result;
  });
}

interface Material {
  input: TrainingInput;
  keys: string[];
  lessons: { codeId: string; text: string }[];
  /** Answers first, then lessons. */
  vectors: TextVector[];
  x: SparseRows;
  /** Positions of the settled answers. */
  settled: number[];
}

/** A code's name, definition and inclusions, as texts to learn from where they are not answers too. */
function codebookLessons({ codes }: TrainingInput, answerKeys: Set<string>) {
  return codes.flatMap((code) =>
    [`${code.name}. ${code.definition}`, code.include]
      .filter((text) => text.trim() !== '' && !answerKeys.has(duplicateKey(text)))
      .map((text) => ({ codeId: code.id, text })),
  );
}

function trainCode(material: Material, codeId: string): CodeResult {
  const { input, keys, lessons, vectors, x, settled } = material;
  const labels = Uint8Array.from(vectors, (_, i) => {
    const answer = input.answers[i];
    return Number(
      answer ? answer.codes.has(codeId) : lessons[i - input.answers.length]!.codeId === codeId,
    );
  });
  const examples = settled.filter((i) => labels[i] === 1).length;
  if (examples < FEWEST_EXAMPLES) return { codeId, state: 'too_few', examples };

  const importance = Float64Array.from(vectors, (_, i) =>
    i < input.answers.length ? 1 : codebookImportance,
  );
  const lessonRows = lessons.map((_, i) => input.answers.length + i);
  const fit = (answers: number[]) =>
    fitLogistic(x, {
      rows: Int32Array.from([...answers, ...lessonRows]),
      labels,
      importance,
      c: penaltyC,
    });

  const settledLabels = Uint8Array.from(settled, (i) => labels[i]!);
  const scores = scoreOutOfFold(material, settledLabels, examples, fit);
  const calibration = fitPlatt(scores, settledLabels, 1);
  const outOfFold = scores.map((score) => sigmoid(calibration.slope * score + calibration.shift));

  const model = fit(settled);
  const all = Int32Array.from(input.answers, (_, i) => i);
  const probabilities = scoreRows(x, all, model).map((score) =>
    sigmoid(calibration.slope * score + calibration.shift),
  );
  const line = (bestF1Line(outOfFold, settledLabels) + plugInLine(probabilities)) / 2;
  const open = input.answers.flatMap((answer, i) => (answer.settled ? [] : [i]));
  const suggested = open.filter((i) => probabilities[i]! >= LEAST_PROBABILITY);
  return {
    codeId,
    state: examples < FEW_EXAMPLES ? 'weak' : 'ready',
    examples,
    quality: measure(outOfFold, settledLabels, line, keys, settled, input.seed),
    line,
    ...weighWords(vectors.slice(0, input.answers.length), model, calibration),
    suggestions: suggested.map((answer) => ({
      answer,
      probability: probabilities[answer]!,
      evidence: strongest(explain(vectors[answer]!, model, calibration).parts),
    })),
    unsuggested: open.reduce(
      (sum, i) => sum + (probabilities[i]! < LEAST_PROBABILITY ? probabilities[i]! : 0),
      0,
    ),
  };
}

function scoreOutOfFold(
  { input, keys, x, settled }: Material,
  labels: Uint8Array,
  examples: number,
  fit: (answers: number[]) => LinearModel,
): Float64Array {
  const folds = Math.min(mostFolds, examples);
  const settledKeys = settled.map((i) => keys[i]!);
  const foldOf = dealFolds(labels, settledKeys, folds, input.seed);
  const scores = new Float64Array(settled.length);
  for (let fold = 0; fold < folds; fold++) {
    const model = fit(settled.filter((_, i) => foldOf[i] !== fold));
    const held = settled.flatMap((_, i) => (foldOf[i] === fold ? [i] : []));
    const rows = Int32Array.from(held, (i) => settled[i]!);
    scoreRows(x, rows, model).forEach((score, i) => {
      scores[held[i]!] = score;
    });
  }
  return scores;
}

const resamplings = 400;

/** Wilson intervals for precision and recall; a bootstrap over groups of duplicates for F1. */
function measure(
  p: Float64Array,
  labels: Uint8Array,
  line: number,
  keys: string[],
  settled: number[],
  seed: number,
): MeasuredQuality {
  const outcome = outcomeAt(p, labels, line);
  const { truePositives: tp, falsePositives: fp, falseNegatives: fn } = outcome;
  const groups = groupEqual(settled.map((i) => keys[i]!));
  const next = randomSource(seed);
  const draws = Float64Array.from({ length: resamplings }, () => {
    const drawn = groups.flatMap(() => groups[Math.floor((next() / 2 ** 32) * groups.length)]!);
    return f1(
      outcomeAt(
        Float64Array.from(drawn, (i) => p[i]!),
        Uint8Array.from(drawn, (i) => labels[i]!),
        line,
      ),
    );
  }).sort();
  return {
    precision: precision(outcome),
    precisionInterval: wilsonInterval(precision(outcome), tp + fp),
    recall: recall(outcome),
    recallInterval: wilsonInterval(recall(outcome), tp + fn),
    f1: f1(outcome),
    f1Interval: [draws[Math.floor(0.025 * resamplings)]!, draws[Math.floor(0.975 * resamplings)]!],
    averagePrecision: averagePrecision(p, labels),
    brier: brierScore(p, labels),
  };
}

const strongest = (parts: WordPart[]): WordPart[] =>
  parts
    .filter((part) => part.weight > 0)
    .sort((a, b) => b.weight - a.weight)
    .slice(0, 6);

/** Words by their mean contribution times the root of how often they are used. */
function weighWords(answers: TextVector[], model: LinearModel, calibration: Calibration) {
  const sums = new Map<string, { sum: number; answers: number }>();
  for (const vector of answers)
    for (const { word, weight } of explain(vector, model, calibration).parts) {
      const entry = sums.get(word) ?? { sum: 0, answers: 0 };
      entry.sum += weight;
      entry.answers += 1;
      sums.set(word, entry);
    }
  const words = [...sums]
    .filter(([, entry]) => entry.answers >= 2)
    .map(([word, { sum, answers: n }]) => ({ word, weight: sum / n, answers: n }));
  const pull = (one: WordWeight) => one.weight * Math.sqrt(one.answers);
  const ordered = words.sort((a, b) => pull(b) - pull(a) || (a.word < b.word ? -1 : 1));
  return {
    wordsFor: ordered.filter((one) => one.weight > 0).slice(0, 10),
    wordsAgainst: ordered
      .filter((one) => one.weight < 0)
      .slice(-10)
      .reverse(),
  };
}
