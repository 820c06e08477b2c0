import { wordShareBuilder, type WordShares } from './evidence.js';
import { approximateSigmoid, sigmoid, type LinearModel } from '../solver/linearModel.js';
import type { Material } from '../training/material.js';
import type { Calibration } from '../evaluation/calibration.js';
import { suggestionBuilder, type Suggestions } from './suggestions.js';
import { textScorer } from './textScorer.js';
import { wordReader, type TokenizedTexts } from '../features/tokenizedTexts.js';

/** Answers that are read at a time: what is computed from them is not kept. */
const CHUNK = 1000;
/** Answers over which mean contributions of words are summed; of more, every second, third … is taken. */
const MOST_SUMMED = 20_000;

/** A code's models that answers are read by. */
export interface ReadingModels {
  codeId: string;
  model: LinearModel;
  calibration: Calibration;
  /** Models without each fold, for estimates; none where no share can be estimated. */
  foldModels: readonly LinearModel[];
  /** By place among the settled. */
  foldOf: Int32Array;
}

/** A code's probabilities for all answers. */
export interface Reading {
  /** By answer. */
  probabilities: Float64Array;
  /**
   * By answer, by models that did not see it: the mean of the models without each fold. A duplicate of a settled answer is
   * read by the model without that one's fold; otherwise errors on settled answers would be larger than on the others.
   */
  crossFitted: Float32Array | null;
  suggestions: Suggestions;
}

/** How many times `onChunk` is called. */
export const chunksOf = (answers: number): number => Math.ceil(answers / CHUNK);

/** Reads all answers by the models of some codes, each once for all. */
export function readAnswers(
  material: Material,
  codes: readonly ReadingModels[],
  leastProbability: number,
  onChunk: () => void,
): { readings: Reading[]; shares: WordShares } {
  const { input, keys, vocabulary, textsOf, settled, open } = material;
  const count = input.answers.length;
  const isOpen = new Uint8Array(count);
  for (const i of open) isOpen[i] = 1;
  const placeOfKey = new Map(settled.map((i, place) => [keys[i]!, place]));
  const settledAlike = Int32Array.from(keys, (key) => placeOfKey.get(key) ?? -1);
  const reader = wordReader(vocabulary);
  const whole = wordReader(vocabulary);
  const byWhole = textScorer(
    vocabulary,
    codes.map(({ model }) => model),
    'f64',
  );
  // estimates are kept in 32 bits
  const byParts = textScorer(
    vocabulary,
    codes.flatMap(({ foldModels }) => foldModels),
    'f32',
  );
  const shares = wordShareBuilder(vocabulary);
  const every = Math.ceil(count / MOST_SUMMED);
  /** What the models without a fold each say of the answers that are read, one code after the other. */
  const unseen = Array.from(
    { length: Math.max(0, ...codes.map(({ foldModels }) => foldModels.length)) },
    () => new Float64Array(CHUNK),
  );
  const readers = codes.map(({ codeId, calibration, foldModels, foldOf }) => {
    const folds = foldModels.length;
    const probabilities = new Float64Array(count);
    const crossFitted = folds === 0 ? null : new Float32Array(count);
    const suggested = suggestionBuilder(vocabulary.words.forms);
    return { codeId, calibration, folds, foldOf, probabilities, crossFitted, suggested };
  });

  for (let from = 0; from < count; from += CHUNK) {
    const to = Math.min(count, from + CHUNK);
    const firstRow = new Int32Array(to - from + 1);
    reader.forget();
    for (let i = from; i < to; i++) {
      const first = reader.texts.count;
      textsOf(i).forEach(reader.read);
      firstRow[i - from + 1] = reader.texts.count;
      shares.count(wordsOf(reader.texts, first));
      if (i % every > 0) continue;
      if (reader.texts.count === first + 1) shares.add(reader.texts, first);
      else {
        whole.forget();
        whole.read(input.answers[i]!.text);
        shares.add(whole.texts, 0);
      }
    }
    const scores = byWhole.score(reader.texts);
    const scoresOfParts = byParts.score(reader.texts);
    let part = 0;
    readers.forEach(({ codeId, calibration, folds, foldOf, suggested, ...reading }, model) => {
      const likely = reading.probabilities.subarray(from, to);
      tellProbabilities(scores[model]!, firstRow, calibration, sigmoid, likely);
      scoresOfParts
        .slice(part, (part += folds))
        .forEach((rows, fold) =>
          tellProbabilities(rows, firstRow, calibration, approximateSigmoid, unseen[fold]!),
        );
      for (let i = from; i < to; i++) {
        const k = i - from;
        if (reading.crossFitted) {
          const place = settledAlike[i]!;
          reading.crossFitted[i] =
            place === -1 ? meanAt(unseen, folds, k) : unseen[foldOf[place]!]![k]!;
        }
        if (isOpen[i] === 0 || likely[k]! < leastProbability) continue;
        if (input.answers[i]!.decided?.has(codeId)) continue;
        const line = likeliest(scores[model]!, firstRow[k]!, firstRow[k + 1]!);
        suggested.add(
          { answer: i, probability: likely[k]! },
          reader.texts,
          line,
          byWhole.contributions(reader.texts, line, model),
          calibration.slope,
        );
      }
    });
    onChunk();
  }
  return {
    readings: readers.map(({ probabilities, crossFitted, suggested }) => ({
      probabilities,
      crossFitted,
      suggestions: suggested.suggestions(),
    })),
    shares: shares.shares(),
  };
}

/** The different words of the last texts, from one on. */
function wordsOf({ words, firstWord, count }: TokenizedTexts, text: number): Iterable<number> {
  const all = words.subarray(firstWord[text], firstWord[count]);
  return text === count - 1 ? all : new Set(all);
}

/** Calibrated probabilities by answer: that of its most likely line. */
function tellProbabilities(
  scores: Float64Array,
  firstRow: Int32Array,
  { slope, shift }: Calibration,
  curve: (f: number) => number,
  probabilities: Float64Array,
): void {
  for (let k = 0; k < firstRow.length - 1; k++) {
    let best = scores[firstRow[k]!]!;
    for (let row = firstRow[k]! + 1; row < firstRow[k + 1]!; row++)
      best = Math.max(best, scores[row]!);
    probabilities[k] = curve(slope * best + shift);
  }
}

function meanAt(lists: readonly Float64Array[], count: number, place: number): number {
  let sum = 0;
  for (let i = 0; i < count; i++) sum += lists[i]![place]!;
  return sum / count;
}

/** Which row of an answer its probability is from: it has those from `first` to before `end`. */
function likeliest(scores: Float64Array, first: number, end: number): number {
  let best = first;
  for (let row = first + 1; row < end; row++) if (scores[row]! > scores[best]!) best = row;
  return best;
}
