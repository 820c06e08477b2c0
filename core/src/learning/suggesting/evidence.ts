import type { LinearModel } from '../solver/linearModel.js';
import type { Calibration } from '../evaluation/calibration.js';
import type { Vocabulary } from '../features/vocabulary.js';
import type { TokenizedTexts } from '../features/tokenizedTexts.js';

/** What a word of a text adds to the log-odds of a code. */
export interface WordPart {
  word: string;
  weight: number;
}

/** A word that is evidence for or against a code. */
export interface WordWeight {
  word: string;
  /** Mean contribution to the log-odds over the answers that use the word: of very many answers, over a part of them. */
  weight: number;
  answers: number;
}

/**
 * The contribution of every word to each column, summed over many texts. A word's contribution to a model is linear in
 * it, so the texts are read once for all models.
 */
export interface WordShares {
  words: {
    word: string;
    /** Answers that use it, and those of them that the sums are of. */
    answers: number;
    summed: number;
    columns: Int32Array;
    sums: Float64Array;
    /** Its vector, and how many times that was imported. */
    vector: Float32Array;
    times: number;
  }[];
}

/** Sums word shares over texts, without words that only one answer uses. */
export class WordShareBuilder {
  private readonly vocabulary: Vocabulary;
  private readonly gathered = new Map<number, GatheredWord>();

  constructor(vocabulary: Vocabulary) {
    this.vocabulary = vocabulary;
  }

  /** Counts the distinct words of an answer. */
  count(words: Iterable<number>): void {
    for (const word of words) this.gatheredOf(word).answers += 1;
  }

  /** Adds the contributions of the words of a counted answer. */
  add(texts: TokenizedTexts, text: number): void {
    const { words, runs, meanings, partWord, partColumn, partAmount } = texts;
    const first = texts.firstWord[text]!;
    const ofText: GatheredWord[] = [];
    for (let w = first; w < texts.firstWord[text + 1]!; w++) {
      const one = this.gatheredOf(words[w]!);
      one.summed += 1;
      one.runs += runs[w]!;
      one.meanings += meanings[w]!;
      ofText.push(one);
    }
    for (let k = texts.firstPart[text]!; k < texts.firstPart[text + 1]!; k++) {
      const { sums } = ofText[partWord[k]! - first]!;
      const column = partColumn[k]!;
      sums.set(column, (sums.get(column) ?? 0) + partAmount[k]!);
    }
  }

  shares(): WordShares {
    const { idf, learnt, vectors, words: known } = this.vocabulary;
    const shares = [...this.gathered].flatMap(([word, one]) => {
      const { answers, summed, runs, meanings, sums } = one;
      if (answers < 2 || summed === 0) return [];
      for (let k = known.firstRun[word]!; k < known.firstRun[word + 1]!; k++) {
        const run = known.run[k]!;
        if (run < learnt) sums.set(run, (sums.get(run) ?? 0) + runs * idf[run]!);
      }
      return [
        {
          word: known.forms[word]!,
          answers,
          summed,
          times: meanings,
          vector: vectors.of(word),
          columns: Int32Array.from(sums.keys()),
          sums: Float64Array.from(sums.values()),
        },
      ];
    });
    return { words: shares };
  }

  private gatheredOf(word: number): GatheredWord {
    let one = this.gathered.get(word);
    if (!one) {
      one = { answers: 0, summed: 0, runs: 0, meanings: 0, sums: new Map() };
      this.gathered.set(word, one);
    }
    return one;
  }
}

interface GatheredWord {
  answers: number;
  summed: number;
  /** How many times its runs and its vector were imported, and what else by column. */
  runs: number;
  meanings: number;
  sums: Map<number, number>;
}

/**
 * The words that speak most for a code and most against it: by their mean contribution, in the answers that sums are
 * of, times the root of how many answers use them.
 */
export function weighWords(
  { words }: WordShares,
  model: LinearModel,
  { slope }: Calibration,
  most: number,
): { wordsFor: WordWeight[]; wordsAgainst: WordWeight[] } {
  const pull = (one: WordWeight) => one.weight * Math.sqrt(one.answers);
  const weighed = words
    .map(({ word, answers, summed, columns, sums, vector, times }): WordWeight => {
      let sum = 0;
      for (let i = 0; i < vector.length; i++) sum += times * vector[i]! * model.weights[i]!;
      for (let k = 0; k < columns.length; k++) sum += sums[k]! * model.weights[columns[k]!]!;
      return { word, answers, weight: (slope * sum) / summed };
    })
    .sort((x, y) => pull(y) - pull(x) || (x.word < y.word ? -1 : 1));
  return {
    wordsFor: weighed.filter((one) => one.weight > 0).slice(0, most),
    wordsAgainst: weighed
      .filter((one) => one.weight < 0)
      .slice(-most)
      .reverse(),
  };
}
