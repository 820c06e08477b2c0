import {
  explainer,
  wordShareBuilder,
  type Explained,
  type WordPart,
  type WordShares,
} from './evidence.js';
import type { TextVector } from './features.js';
import { laneScorer } from './lanes.js';
import { sigmoid, type LinearModel } from './linearModel.js';
import type { Material } from './material.js';
import type { Calibration } from './platt.js';

const mostEvidence = 6;
/** Answers are read so many at a time: what is worked out of them is not kept. */
const CHUNK = 500;
/** So many answers say as well as all what a word contributes on average: of more, every second, third … is asked. */
const MOST_SUMMED = 20_000;

export interface Suggestion {
  /** Position in `answers`. */
  answer: number;
  probability: number;
  /** The words that spoke most for it, strongest first, as contributions to the log-odds. */
  evidence: WordPart[];
}

/** A code's models that answers are read by. */
export interface ReadingModels {
  codeId: string;
  model: LinearModel;
  calibration: Calibration;
  /** Models without a fold each, for what shares are estimated from; none where no share can be. */
  foldModels: readonly LinearModel[];
  /** By place among the settled. */
  foldOf: Int32Array;
}

/** What a code's models say of all answers. */
export interface Reading {
  /** By answer. */
  probabilities: Float64Array;
  /**
   * By answer, by models that did not see it: the mean of the folds' models. One whose words are those of a settled
   * one is asked of the model that did not see these words either: otherwise the settled ones would be further off
   * than the others.
   */
  crossFitted: Float32Array | null;
  suggestions: Suggestion[];
}

/** How many times `onChunk` is called for so many answers. */
export const chunksOf = (answers: number): number => Math.ceil(answers / CHUNK);

/** Reads all answers by the models of some codes, each once for all. */
export function readAnswers(
  material: Material,
  codes: readonly ReadingModels[],
  leastProbability: number,
  onChunk: () => void,
): { readings: Reading[]; shares: WordShares } {
  const { input, keys, vocabulary, vectorise, textsOf, settled, open } = material;
  const count = input.answers.length;
  const isOpen = new Uint8Array(count);
  for (const i of open) isOpen[i] = 1;
  const placeOfKey = new Map(settled.map((i, place) => [keys[i]!, place]));
  const settledAlike = Int32Array.from(keys, (key) => placeOfKey.get(key) ?? -1);
  const score = laneScorer(
    vocabulary.learnt,
    codes.flatMap(({ model, foldModels }) => [model, ...foldModels]),
  );
  const shares = wordShareBuilder(vocabulary);
  const every = Math.ceil(count / MOST_SUMMED);
  const readers = codes.map(({ codeId, model, calibration, foldModels, foldOf }) => {
    const folds = foldModels.length;
    const reading: Reading = {
      probabilities: new Float64Array(count),
      crossFitted: folds === 0 ? null : new Float32Array(count),
      suggestions: [],
    };
    const explain = explainer(vocabulary, model, calibration);
    return { codeId, calibration, folds, foldOf, explain, reading };
  });

  for (let from = 0; from < count; from += CHUNK) {
    const to = Math.min(count, from + CHUNK);
    const units: TextVector[][] = [];
    for (let i = from; i < to; i++) {
      const vectors = textsOf(i).map(vectorise);
      const alone = vectors.length === 1 ? vectors[0]! : null;
      shares.count(alone?.words ?? [...new Set(vectors.flatMap(({ words }) => words))]);
      if (i % every === 0) shares.add(alone ?? vectorise(input.answers[i]!.text));
      units.push(vectors);
    }
    const scores = score(units.flat());
    const firstRow = startsOf(units);
    let at = 0;
    for (const { codeId, calibration, folds, explain, foldOf, reading } of readers) {
      const [byWhole, ...byPart] = scores
        .slice(at, (at += 1 + folds))
        .map((rows) => probabilitiesOf(rows, firstRow, calibration));
      reading.probabilities.set(byWhole!, from);
      for (let i = from; i < to; i++) {
        const k = i - from;
        if (reading.crossFitted) {
          const place = settledAlike[i]!;
          reading.crossFitted[i] = place === -1 ? meanAt(byPart, k) : byPart[foldOf[place]!]![k]!;
        }
        if (isOpen[i] === 0 || byWhole![k]! < leastProbability) continue;
        if (input.answers[i]!.decided?.has(codeId)) continue;
        const lines = units[k]!.map(explain);
        reading.suggestions.push({
          ...{ answer: i, probability: byWhole![k]! },
          evidence: strongest(likeliest(lines).parts),
        });
      }
    }
    onChunk();
  }
  return { readings: readers.map(({ reading }) => reading), shares: shares.shares() };
}

/** Which row each answer's lines begin at, and where the last one's end. */
function startsOf(units: readonly TextVector[][]): Int32Array {
  const starts = new Int32Array(units.length + 1);
  units.forEach((lines, k) => (starts[k + 1] = starts[k]! + lines.length));
  return starts;
}

/** Calibrated probabilities by answer: one is as likely as its likeliest line. */
function probabilitiesOf(
  scores: Float64Array,
  firstRow: Int32Array,
  { slope, shift }: Calibration,
): Float64Array {
  const probabilities = new Float64Array(firstRow.length - 1);
  for (let k = 0; k < probabilities.length; k++) {
    let best = scores[firstRow[k]!]!;
    for (let row = firstRow[k]! + 1; row < firstRow[k + 1]!; row++)
      best = Math.max(best, scores[row]!);
    probabilities[k] = sigmoid(slope * best + shift);
  }
  return probabilities;
}

function meanAt(lists: readonly Float64Array[], place: number): number {
  let sum = 0;
  for (const list of lists) sum += list[place]!;
  return sum / lists.length;
}

/** The words of the line that the answer's probability is from. */
function likeliest(lines: Explained[]) {
  const sum = ({ parts }: Explained) => parts.reduce((total, part) => total + part.weight, 0);
  return lines.reduce((best, line) => (sum(line) > sum(best) ? line : best));
}

const strongest = (parts: WordPart[]): WordPart[] =>
  parts
    .filter((part) => part.weight > 0)
    .sort((x, y) => y.weight - x.weight)
    .slice(0, mostEvidence);
