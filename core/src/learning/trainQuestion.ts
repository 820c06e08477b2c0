import { duplicateKey } from '../text/index.js';
import {
  explain,
  weighWords,
  wordShareBuilder,
  type WordPart,
  type WordShares,
  type WordWeight,
} from './evidence.js';
import {
  learnVocabulary,
  rowBuilder,
  vectoriser,
  type SparseRows,
  type TextVector,
} from './features.js';
import { dealFolds } from './folds.js';
import { fitLogistic, scoreRows, sigmoid, type LinearModel } from './logistic.js';
import { measureQuality, type MeasuredQuality } from './measureQuality.js';
import { bestF1Line, plugInLine } from './metrics.js';
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
const mostWords = 10;
const mostEvidence = 6;

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
 * @param onProgress called as the work goes on; may throw to stop
 */
export function trainQuestion(
  input: TrainingInput,
  onProgress: (progress: TrainingProgress) => void = () => {},
): CodeResult[] {
  const steps = input.codes.length + 2;
  const material = readMaterial(input);
  onProgress({ done: 1, of: steps });
  const fitted = input.codes.map((code, done) => {
    const one = fitCode(material, code.id);
    onProgress({ done: done + 2, of: steps });
    return one;
  });
  const suggestions = suggest(material, fitted);
  onProgress({ done: steps, of: steps });
  return fitted.map((one): CodeResult => {
    if (one.state === 'too_few') return one;
    const { codeId, state, examples, quality, line, wordsFor, wordsAgainst, unsuggested } = one;
    return {
      codeId,
      state,
      examples,
      quality,
      line,
      wordsFor,
      wordsAgainst,
      unsuggested,
      suggestions: suggestions.get(codeId) ?? [],
    };
  });
}

interface Material {
  input: TrainingInput;
  keys: string[];
  lessons: { codeId: string; text: string }[];
  vectorise: (text: string) => TextVector;
  /** Answers first, then lessons. */
  x: SparseRows;
  shares: WordShares;
  /** Positions of the settled answers, and of the others. */
  settled: number[];
  open: number[];
}

function readMaterial(input: TrainingInput): Material {
  const texts = input.answers.map((answer) => answer.text);
  const keys = texts.map(duplicateKey);
  const lessons = codebookLessons(input, new Set(keys));
  const lessonTexts = lessons.map((lesson) => lesson.text);
  const settled = input.answers.flatMap((answer, i) => (answer.settled ? [i] : []));
  const vocabulary = learnVocabulary(texts, [...settled.map((i) => texts[i]!), ...lessonTexts]);
  const vectorise = vectoriser(vocabulary);
  const builder = rowBuilder(vocabulary);
  const shareBuilder = wordShareBuilder(vocabulary.learnt);
  for (const text of texts) {
    const vector = vectorise(text);
    builder.add(vector);
    shareBuilder.add(vector);
  }
  for (const text of lessonTexts) builder.add(vectorise(text));
  return {
    input,
    keys,
    lessons,
    vectorise,
    x: builder.rows(),
    shares: shareBuilder.shares(),
    settled,
    open: input.answers.flatMap((answer, i) => (answer.settled ? [] : [i])),
  };
}

/** A code's name, definition and inclusions, as texts to learn from where they are not answers too. */
function codebookLessons({ codes }: TrainingInput, answerKeys: Set<string>) {
  return codes.flatMap((code) =>
    [`${code.name}. ${code.definition}`, code.include]
      .filter((text) => text.trim() !== '' && !answerKeys.has(duplicateKey(text)))
      .map((text) => ({ codeId: code.id, text })),
  );
}

/** A code's model with everything that follows from it but the evidence of its suggestions. */
type FittedCode =
  | Extract<CodeResult, { state: 'too_few' }>
  | (Omit<Exclude<CodeResult, { state: 'too_few' }>, 'suggestions'> & {
      model: LinearModel;
      calibration: Calibration;
      /** One an answer. */
      probabilities: Float64Array;
    });

function fitCode(material: Material, codeId: string): FittedCode {
  const { input, keys, lessons, x, shares, settled, open } = material;
  const labels = Uint8Array.from(
    [
      ...input.answers.map((answer) => answer.codes.has(codeId)),
      ...lessons.map((lesson) => lesson.codeId === codeId),
    ],
    Number,
  );
  const examples = settled.filter((i) => labels[i] === 1).length;
  if (examples < FEWEST_EXAMPLES) return { codeId, state: 'too_few', examples };

  const importance = Float64Array.from(labels, (_, i) =>
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
  const asProbability = (score: number) => sigmoid(calibration.slope * score + calibration.shift);
  const outOfFold = scores.map(asProbability);

  const model = fit(settled);
  const all = Int32Array.from(input.answers, (_, i) => i);
  const probabilities = scoreRows(x, all, model).map(asProbability);
  const line = (bestF1Line(outOfFold, settledLabels) + plugInLine(probabilities)) / 2;
  const settledKeys = settled.map((i) => keys[i]!);
  return {
    codeId,
    state: examples < FEW_EXAMPLES ? 'weak' : 'ready',
    examples,
    quality: measureQuality(outOfFold, settledLabels, line, settledKeys, input.seed),
    line,
    ...weighWords(shares, model, calibration, mostWords),
    unsuggested: open.reduce(
      (sum, i) => sum + (probabilities[i]! < LEAST_PROBABILITY ? probabilities[i]! : 0),
      0,
    ),
    model,
    calibration,
    probabilities,
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

/** Suggestions by code, each answer taken apart once for all its codes. */
function suggest(
  { input, vectorise, open }: Material,
  fitted: FittedCode[],
): Map<string, Suggestion[]> {
  const models = fitted.filter((one) => one.state !== 'too_few');
  const suggestions = new Map<string, Suggestion[]>(models.map((one) => [one.codeId, []]));
  for (const answer of open) {
    const likely = models.filter((one) => one.probabilities[answer]! >= LEAST_PROBABILITY);
    if (likely.length === 0) continue;
    const vector = vectorise(input.answers[answer]!.text);
    for (const { codeId, model, calibration, probabilities } of likely)
      suggestions.get(codeId)!.push({
        answer,
        probability: probabilities[answer]!,
        evidence: strongest(explain(vector, model, calibration).parts),
      });
  }
  return suggestions;
}

const strongest = (parts: WordPart[]): WordPart[] =>
  parts
    .filter((part) => part.weight > 0)
    .sort((x, y) => y.weight - x.weight)
    .slice(0, mostEvidence);
