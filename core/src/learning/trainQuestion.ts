import type { UnseenOutcome } from './confusion.js';
import { explain, type WordPart } from './evidence.js';
import {
  fitCode,
  LEAST_PROBABILITY,
  type CodeFigures,
  type FittedCode,
  type TooFew,
} from './fitCode.js';
import { readMaterial, type Material, type TrainingInput } from './material.js';
import { findNeighbours } from './nearest.js';
import type { WordTable } from './wordTable.js';

const mostEvidence = 6;

export interface TrainingProgress {
  done: number;
  of: number;
}

export interface Suggestion {
  /** Position in `answers`. */
  answer: number;
  probability: number;
  /** The words that spoke most for it, strongest first, as contributions to the log-odds. */
  evidence: WordPart[];
}

/** What training brought for one code. */
export type CodeResult =
  | TooFew
  | (CodeFigures & {
      /** Open answers in scope with a probability of at least LEAST_PROBABILITY. */
      suggestions: Suggestion[];
    });

export interface TrainingResult {
  codes: CodeResult[];
  /** What each model says of the settled answers that it did not see: for `findConfused`. */
  unseen: UnseenOutcome[];
}

/**
 * Trains one binary model per code on the settled answers of a question and the codebook's own words,
 * measures each out-of-fold, calibrates it, and suggests codes for the answers that are not settled.
 *
 * An answer is a negative only when settled. Exact duplicates stay in one fold. Codebook texts are
 * learnt from in every fold and measured in none. Codes with struck words of their own read all texts
 * without these.
 *
 * @param table vectors of words; without them the models rest on words and character runs
 * @param onProgress called as the work goes on; may throw to stop
 */
export function trainQuestion(
  input: TrainingInput,
  table: WordTable | null = null,
  onProgress: (progress: TrainingProgress) => void = () => {},
): TrainingResult {
  const sets = codesByStruckWords(input);
  const of = sets.reduce((sum, { codeIds }) => sum + codeIds.length + 2, 0);
  let done = 0;
  const step = () => onProgress({ done: ++done, of });
  const results = new Map<string, CodeResult>();
  const fitted: FittedCode[] = [];
  for (const { struck, codeIds } of sets) {
    const material = readMaterial(input, struck, table);
    const neighbours = material.gram && findNeighbours(material.gram, material.settled);
    step();
    const fits = codeIds.map((codeId) => {
      const fit = fitCode(material, codeId, neighbours);
      step();
      return fit;
    });
    const models = fits.flatMap((fit) => ('figures' in fit ? [fit] : []));
    const suggestions = suggest(material, models);
    for (const fit of fits)
      results.set(
        fit.codeId,
        'figures' in fit ? { ...fit.figures, suggestions: suggestions.get(fit.codeId)! } : fit,
      );
    fitted.push(...models);
    step();
  }
  return {
    codes: [...results.values()],
    unseen: fitted.map(({ codeId, figures: { line }, settledLabels, outOfFold }) => ({
      ...{ codeId, line, settledLabels, outOfFold },
    })),
  };
}

/** Codes that read the texts alike, in the order of the first of them. */
function codesByStruckWords({ codes, only, struck = [] }: TrainingInput) {
  const sets = new Map<string, { struck: Set<string>; codeIds: string[] }>();
  for (const { id } of codes) {
    if (only && !only.has(id)) continue;
    const words = struck.flatMap(({ word, codeId }) =>
      codeId === null || codeId === id ? [word] : [],
    );
    const key = [...new Set(words)].sort().join('\n');
    const set = sets.get(key);
    if (set) set.codeIds.push(id);
    else sets.set(key, { struck: new Set(words), codeIds: [id] });
  }
  return [...sets.values()];
}

/** Suggestions by code, each answer taken apart once for all its codes. */
function suggest(
  { input, vectorise, vocabulary, unitsOf, open }: Material,
  models: FittedCode[],
): Map<string, Suggestion[]> {
  const suggestions = new Map<string, Suggestion[]>(models.map((one) => [one.codeId, []]));
  const { leastProbability = LEAST_PROBABILITY } = input;
  for (const answer of open) {
    const { text, lines = [], decided } = input.answers[answer]!;
    const likely = models.filter(
      ({ codeId, probabilities }) =>
        probabilities[answer]! >= leastProbability && !decided?.has(codeId),
    );
    if (likely.length === 0) continue;
    const spans = unitsOf[answer]!.length > 1 ? lines : [{ start: 0, end: text.length }];
    const vectors = spans.map(({ start, end }) => vectorise(text.slice(start, end)));
    for (const { codeId, model, calibration, probabilities } of likely) {
      const explained = vectors.map((vector) => explain(vector, vocabulary, model, calibration));
      suggestions.get(codeId)!.push({
        answer,
        probability: probabilities[answer]!,
        evidence: strongest(likeliest(explained).parts),
      });
    }
  }
  return suggestions;
}

/** The words of the line that the answer's probability is from. */
function likeliest(lines: ReturnType<typeof explain>[]) {
  const sum = ({ parts }: ReturnType<typeof explain>) =>
    parts.reduce((total, part) => total + part.weight, 0);
  return lines.reduce((best, line) => (sum(line) > sum(best) ? line : best));
}

const strongest = (parts: WordPart[]): WordPart[] =>
  parts
    .filter((part) => part.weight > 0)
    .sort((x, y) => y.weight - x.weight)
    .slice(0, mostEvidence);
