import { simdScorer, type WeightView } from '../solver/wasm/simdScorer.js';
import type { LinearModel } from '../solver/linearModel.js';
import { newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { CompressedRows } from '../features/sparseRows.js';
import type { Vocabulary } from '../features/vocabulary.js';
import type { TokenizedTexts } from '../features/tokenizedTexts.js';

/** Words whose scores are remembered at a time; with more, all are forgotten and computed again. */
const WORDS = 1 << 13;

/** Scores texts by many models, with the contributions of their words. */
export interface TextScorer {
  /** @returns by model, the score of each text, until the next are scored */
  score: (texts: TokenizedTexts) => Float64Array[];
  /**
   * What each word of a text adds to the score by a model. The text must be of those that were scored last.
   *
   * @returns by word of that text, and more behind, until the next are asked for
   */
  contributions: (texts: TokenizedTexts, text: number, model: number) => Float64Array;
}

/**
 * A word's score by each model is computed once, however many texts contain it.
 *
 * @param precision whether in numbers of 64 bits or of 32
 * @param atLeast number of words that are remembered
 */
export function textScorer(
  vocabulary: Vocabulary,
  models: readonly LinearModel[],
  precision: 'f64' | 'f32',
  atLeast = WORDS,
): TextScorer {
  const { learnt } = vocabulary;
  const wholeWords = wordRows(vocabulary);
  let room = atLeast;
  let scorer = simdScorer(learnt, models, 2 * room, precision);
  /** By word's number: the column of the sum of its runs, which that of its vector follows. */
  let columnOf: number[] = [];
  let known = 0;
  const meet = ({ count, firstWord, words }: TokenizedTexts) => {
    const those = words.subarray(0, firstWord[count]);
    let fresh = new Set(those.filter((word) => columnOf[word] === undefined));
    if (fresh.size === 0) return;
    if (known + fresh.size > room) {
      fresh = new Set(those);
      room = Math.max(room, fresh.size);
      scorer = simdScorer(learnt, models, 2 * room, precision);
      columnOf = [];
      known = 0;
    }
    let column = scorer.derive(wholeWords(fresh));
    for (const word of fresh) {
      columnOf[word] = column;
      column += 2;
    }
    known += fresh.size;
  };

  const rows = { count: 0, start: newInts(1), column: newInts(0), value: newFloats(0) };
  /** Texts as rows: two numbers a word, and the rest by column. */
  const rowsOf = (texts: TokenizedTexts): CompressedRows => {
    const { count, firstWord, words, runs, meanings, firstEntry } = texts;
    const entries = 2 * firstWord[count]! + firstEntry[count]!;
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
      for (let k = firstEntry[t]!; k < firstEntry[t + 1]!; k++) {
        column[at] = texts.column[k]!;
        value[at++] = texts.amount[k]!;
      }
      start[t + 1] = at;
    }
    return rows;
  };

  let sums = newFloats(0);
  /** The weights that were asked for last. */
  let asked: (WeightView & { model: number }) | null = null;
  return {
    score(texts) {
      meet(texts);
      asked = null;
      return scorer.score(rowsOf(texts));
    },
    contributions(texts, text, model) {
      const { words, runs, meanings, partWord, partColumn, partAmount } = texts;
      if (asked?.model !== model) asked = { model, ...scorer.weightsOf(model) };
      const { numbers, first, step } = asked;
      const from = texts.firstWord[text]!;
      const count = texts.firstWord[text + 1]! - from;
      sums = withCapacity(sums, count, newFloats);
      for (let w = 0; w < count; w++) {
        const at = first + step * columnOf[words[from + w]!]!;
        sums[w] = runs[from + w]! * numbers[at]! + meanings[from + w]! * numbers[at + step]!;
      }
      // a copy: contiguous weights are read faster than interleaved ones
      const { weights } = models[model]!;
      const end = texts.firstPart[text + 1]!;
      for (let k = texts.firstPart[text]!; k < end; k++)
        sums[partWord[k]! - from]! += partAmount[k]! * weights[partColumn[k]!]!;
      return sums;
    },
  };
}

/** Makes the function that gives words as rows: of each the sum of its runs, and its vector. */
function wordRows({ idf, learnt, vectors, words: known }: Vocabulary) {
  return (words: ReadonlySet<number>): CompressedRows => {
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
  };
}
