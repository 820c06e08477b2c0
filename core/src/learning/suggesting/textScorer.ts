import { simdScorer, type SimdScorer, type WeightView } from '../solver/wasm/simdScorer.js';
import type { LinearModel } from '../solver/linearModel.js';
import { newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { CompressedRows } from '../features/sparseRows.js';
import type { Vocabulary } from '../features/vocabulary.js';
import { sentenceOf, type TokenizedTexts } from '../features/tokenizedTexts.js';

/** Words whose scores are remembered at a time; with more, all are forgotten and computed again. */
const WORDS = 1 << 13;

/**
 * Scores texts by many models, with the contributions of their words. A word's score by each model is computed once,
 * however many texts contain it.
 */
export class TextScorer {
  private readonly vocabulary: Vocabulary;
  private readonly models: readonly LinearModel[];
  private readonly precision: 'f64' | 'f32';
  /** Words whose scores are remembered at a time. */
  private capacity: number;
  private scorer: SimdScorer;
  /** By word id: the column of the sum of its runs, which that of its vector follows. */
  private columnOf: number[] = [];
  private remembered = 0;
  private readonly rows = {
    count: 0,
    start: newInts(1),
    column: newInts(0),
    value: newFloats(0),
  };
  private sums = newFloats(0);
  /** The weights that were asked for last. */
  private lastWeights: (WeightView & { model: number }) | null = null;

  /**
   * @param precision whether in numbers of 64 bits or of 32
   * @param capacity number of words that are remembered
   */
  constructor(
    vocabulary: Vocabulary,
    models: readonly LinearModel[],
    precision: 'f64' | 'f32',
    capacity = WORDS,
  ) {
    this.vocabulary = vocabulary;
    this.models = models;
    this.precision = precision;
    this.capacity = capacity;
    this.scorer = this.newScorer();
  }

  /** @returns by model, the score of each text, until the next are scored */
  score(texts: TokenizedTexts): Float64Array[] {
    this.rememberWords(texts);
    this.lastWeights = null;
    return this.scorer.score(this.rowsOf(texts));
  }

  /**
   * What each word of a text adds to the score by a model. The text must be of those that were scored last.
   *
   * @returns by word of that text, and more behind, until the next are asked for
   */
  contributions(texts: TokenizedTexts, text: number, model: number): Float64Array {
    const { words, runs, meanings, partWord, partColumn, partAmount } = texts;
    if (this.lastWeights?.model !== model)
      this.lastWeights = { model, ...this.scorer.weightsOf(model) };
    const { numbers, first, step } = this.lastWeights;
    const from = texts.firstWord[text]!;
    const count = texts.firstWord[text + 1]! - from;
    this.sums = withCapacity(this.sums, count, newFloats);
    const { sums, columnOf } = this;
    for (let w = 0; w < count; w++) {
      const at = first + step * columnOf[words[from + w]!]!;
      sums[w] = runs[from + w]! * numbers[at]! + meanings[from + w]! * numbers[at + step]!;
    }
    // a copy: contiguous weights are read faster than interleaved ones
    const { weights } = this.models[model]!;
    const end = texts.firstPart[text + 1]!;
    for (let k = texts.firstPart[text]!; k < end; k++)
      sums[partWord[k]! - from]! += partAmount[k]! * weights[partColumn[k]!]!;
    return sums;
  }

  /** What the meaning of a text as a whole adds to the score by a model; null for a text without a sentence vector. */
  sentenceContribution(texts: TokenizedTexts, text: number, model: number): number | null {
    const { vectors, sentences } = this.vocabulary;
    const { weights } = this.models[model]!;
    const sentence = sentenceOf(texts, sentences, text);
    let sum = 0;
    let isKnown = false;
    for (let i = 0; i < sentence.length; i++) {
      isKnown ||= sentence[i] !== 0;
      sum += sentence[i]! * weights[vectors.size + i]!;
    }
    return isKnown ? sum : null;
  }

  private newScorer(): SimdScorer {
    return simdScorer(this.vocabulary.learnt, this.models, 2 * this.capacity, this.precision);
  }

  private rememberWords({ count, firstWord, words }: TokenizedTexts): void {
    const inTexts = words.subarray(0, firstWord[count]);
    let fresh = new Set(inTexts.filter((word) => this.columnOf[word] === undefined));
    if (fresh.size === 0) return;
    if (this.remembered + fresh.size > this.capacity) {
      fresh = new Set(inTexts);
      this.capacity = Math.max(this.capacity, fresh.size);
      this.scorer = this.newScorer();
      this.columnOf = [];
      this.remembered = 0;
    }
    let column = this.scorer.derive(wordRows(this.vocabulary, fresh));
    for (const word of fresh) {
      this.columnOf[word] = column;
      column += 2;
    }
    this.remembered += fresh.size;
  }

  /** Texts as rows: two numbers a word, their vectors as sentences, and the rest by column. */
  private rowsOf(texts: TokenizedTexts): CompressedRows {
    const { rows, columnOf } = this;
    const { count, firstWord, words, runs, meanings, firstEntry, sentences } = texts;
    const { size } = this.vocabulary.sentences;
    const firstSentence = this.vocabulary.vectors.size;
    const entries = 2 * firstWord[count]! + firstEntry[count]! + count * size;
    rows.count = count;
    rows.start = withCapacity(rows.start, count + 1, newInts);
    rows.column = withCapacity(rows.column, entries, newInts);
    rows.value = withCapacity(rows.value, entries, newFloats);
    const { start, column, value } = rows;
    let at = 0;
    for (let t = 0; t < count; t++) {
      for (let w = firstWord[t]!; w < firstWord[t + 1]!; w++) {
        const first = columnOf[words[w]!]!;
        column[at] = first;
        value[at++] = runs[w]!;
        column[at] = first + 1;
        value[at++] = meanings[w]!;
      }
      const sentence = sentences.subarray(t * size, (t + 1) * size);
      if (sentence.some((one) => one !== 0))
        for (let i = 0; i < size; i++) {
          column[at] = firstSentence + i;
          value[at++] = sentence[i]!;
        }
      for (let k = firstEntry[t]!; k < firstEntry[t + 1]!; k++) {
        column[at] = texts.column[k]!;
        value[at++] = texts.amount[k]!;
      }
      start[t + 1] = at;
    }
    return rows;
  }
}

/** Words as rows: of each the sum of its runs, and its vector. */
function wordRows(
  { idf, learnt, vectors, words: known }: Vocabulary,
  words: ReadonlySet<number>,
): CompressedRows {
  const start = [0];
  const column: number[] = [];
  const value: number[] = [];
  for (const word of words) {
    for (let k = known.firstRun[word]!; k < known.firstRun[word + 1]!; k++) {
      const run = known.run[k]!;
      if (run >= learnt) continue;
      column.push(run);
      value.push(idf[run]!);
    }
    start.push(column.length);
    if (vectors.has(word))
      vectors.of(word).forEach((number, i) => {
        column.push(i);
        value.push(number);
      });
    start.push(column.length);
  }
  return {
    count: 2 * words.size,
    start: Int32Array.from(start),
    column: Int32Array.from(column),
    value: Float64Array.from(value),
  };
}
