import { WordShareBuilder, type WordShares } from './evidence.js';
import { approximateSigmoid, sigmoid, type LinearModel } from '../solver/linearModel.js';
import type { Material } from '../training/material.js';
import type { Calibration } from '../evaluation/calibration.js';
import { SuggestionBuilder, type Suggestions } from './suggestions.js';
import { TextScorer } from './textScorer.js';
import { Tokenizer, type TokenizedTexts } from '../features/tokenizedTexts.js';

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
  const { input, vocabulary } = material;
  const count = input.answers.length;
  const reader = new ChunkReader(material);
  const byModel = new TextScorer(
    vocabulary,
    codes.map(({ model }) => model),
    'f64',
  );
  // estimates are kept in 32 bits
  const byFold = new TextScorer(
    vocabulary,
    codes.flatMap(({ foldModels }) => foldModels),
    'f32',
  );
  const marks = markAnswers(material);
  const readers = codes.map((code, c) => new CodeReader(marks, code, c, leastProbability));
  for (let from = 0; from < count; from += CHUNK) {
    const chunk = reader.read(from, Math.min(count, from + CHUNK));
    const scores = byModel.score(chunk.texts);
    const foldScores = byFold.score(chunk.texts);
    let fold = 0;
    for (const one of readers)
      one.read(chunk, { scores, foldScores: foldScores.slice(fold, (fold += one.folds)), byModel });
    onChunk();
  }
  return { readings: readers.map((one) => one.reading()), shares: reader.shares.shares() };
}

/** What the models of every code ask of the answers. */
interface AnswerMarks extends Pick<Material, 'input' | 'vocabulary'> {
  count: number;
  /** By answer, 1 for those that codes may be suggested for. */
  isOpen: Uint8Array;
  /** By answer, the place among the settled of one with the same text; −1 for none. */
  settledAlike: Int32Array;
}

function markAnswers({ input, vocabulary, keys, settled, open }: Material): AnswerMarks {
  const count = input.answers.length;
  const isOpen = new Uint8Array(count);
  for (const i of open) isOpen[i] = 1;
  const placeOfKey = new Map(settled.map((i, place) => [keys[i]!, place]));
  const settledAlike = Int32Array.from(keys, (key) => placeOfKey.get(key) ?? -1);
  return { input, vocabulary, count, isOpen, settledAlike };
}

/** Some answers in a row, tokenized by line. */
interface Chunk {
  from: number;
  to: number;
  texts: TokenizedTexts;
  /** The lines of answer from + k are the texts firstRow[k] … firstRow[k + 1] − 1. */
  firstRow: Int32Array;
}

/** Tokenizes answers by line, and sums the shares of their words. */
class ChunkReader {
  private readonly material: Material;
  readonly shares: WordShareBuilder;
  private readonly lines: Tokenizer;
  private readonly whole: Tokenizer;
  private readonly every: number;

  constructor(material: Material) {
    this.material = material;
    this.lines = new Tokenizer(material.vocabulary);
    this.whole = new Tokenizer(material.vocabulary);
    this.shares = new WordShareBuilder(material.vocabulary);
    this.every = Math.ceil(material.input.answers.length / MOST_SUMMED);
  }

  read(from: number, to: number): Chunk {
    const { lines, shares, material } = this;
    const firstRow = new Int32Array(to - from + 1);
    lines.forget();
    for (let i = from; i < to; i++) {
      const first = lines.texts.count;
      for (const line of material.textsOf(i)) lines.read(line);
      firstRow[i - from + 1] = lines.texts.count;
      shares.count(wordsOf(lines.texts, first));
      if (i % this.every === 0) this.addShares(i, first);
    }
    return { from, to, texts: lines.texts, firstRow };
  }

  private addShares(answer: number, first: number): void {
    const { lines, whole, shares, material } = this;
    if (lines.texts.count === first + 1) {
      shares.add(lines.texts, first);
      return;
    }
    whole.forget();
    whole.read(material.input.answers[answer]!.text);
    shares.add(whole.texts, 0);
  }
}

/** Reads answers by the models of one code. */
class CodeReader {
  private readonly answers: AnswerMarks;
  private readonly code: ReadingModels;
  private readonly model: number;
  private readonly leastProbability: number;
  readonly folds: number;
  private readonly probabilities: Float64Array;
  private readonly crossFitted: Float32Array | null;
  private readonly suggested: SuggestionBuilder;
  /** What the models without a fold each say of the answers of a chunk. */
  private readonly byFold: Float64Array[];

  constructor(answers: AnswerMarks, code: ReadingModels, model: number, leastProbability: number) {
    this.answers = answers;
    this.code = code;
    this.model = model;
    this.leastProbability = leastProbability;
    const { count, vocabulary } = answers;
    this.folds = code.foldModels.length;
    this.probabilities = new Float64Array(count);
    this.crossFitted = this.folds === 0 ? null : new Float32Array(count);
    this.suggested = new SuggestionBuilder(vocabulary.words.forms);
    this.byFold = Array.from({ length: this.folds }, () => new Float64Array(CHUNK));
  }

  read(
    { from, to, texts, firstRow }: Chunk,
    by: { scores: Float64Array[]; foldScores: Float64Array[]; byModel: TextScorer },
  ): void {
    const { calibration, codeId } = this.code;
    const scores = by.scores[this.model]!;
    const likely = this.probabilities.subarray(from, to);
    setProbabilities(likely, scores, firstRow, (f) => sigmoid(calibrated(f, calibration)));
    by.foldScores.forEach((rows, fold) =>
      setProbabilities(this.byFold[fold]!, rows, firstRow, (f) =>
        approximateSigmoid(calibrated(f, calibration)),
      ),
    );
    for (let i = from; i < to; i++) {
      const k = i - from;
      if (this.crossFitted) this.crossFitted[i] = this.unseenAt(i, k);
      if (this.answers.isOpen[i] === 0 || likely[k]! < this.leastProbability) continue;
      if (this.answers.input.answers[i]!.decided?.has(codeId)) continue;
      const text = likeliest(scores, firstRow[k]!, firstRow[k + 1]!);
      const isByLine = firstRow[k + 1]! - firstRow[k]! > 1;
      this.suggested.add(
        { answer: i, probability: likely[k]!, line: isByLine ? text - firstRow[k]! : null },
        {
          texts,
          text,
          contributions: by.byModel.contributions(texts, text, this.model),
          meaning: by.byModel.sentenceContribution(texts, text, this.model),
          slope: calibration.slope,
        },
      );
    }
  }

  reading(): Reading {
    return {
      probabilities: this.probabilities,
      crossFitted: this.crossFitted,
      suggestions: this.suggested.suggestions(),
    };
  }

  private unseenAt(answer: number, k: number): number {
    const place = this.answers.settledAlike[answer]!;
    return place === -1
      ? meanAt(this.byFold, this.folds, k)
      : this.byFold[this.code.foldOf[place]!]![k]!;
  }
}

/** The different words of the last texts, from one on. */
function wordsOf({ words, firstWord, count }: TokenizedTexts, text: number): Iterable<number> {
  const all = words.subarray(firstWord[text], firstWord[count]);
  return text === count - 1 ? all : new Set(all);
}

const calibrated = (score: number, { slope, shift }: Calibration): number => slope * score + shift;

/** Probabilities by answer: that of its line with the highest score. */
function setProbabilities(
  probabilities: Float64Array,
  scores: Float64Array,
  firstRow: Int32Array,
  probabilityOf: (score: number) => number,
): void {
  for (let k = 0; k < firstRow.length - 1; k++) {
    let best = scores[firstRow[k]!]!;
    for (let row = firstRow[k]! + 1; row < firstRow[k + 1]!; row++)
      best = Math.max(best, scores[row]!);
    probabilities[k] = probabilityOf(best);
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
