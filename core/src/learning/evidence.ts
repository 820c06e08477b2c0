import type { TextVector, Vocabulary } from './features.js';
import type { LinearModel } from './logistic.js';
import type { Calibration } from './platt.js';
import type { WordTable } from './wordTable.js';

/** What a word of a text adds to the log-odds of a code. */
export interface WordPart {
  word: string;
  weight: number;
}

/**
 * Takes the log-odds of a text apart into what each of its words adds. A pair of words is shared
 * equally by the two, a run of characters goes to the words that it stands in, the text's meaning to the words whose
 * vectors make it up. The model is linear, so
 * Σ weights + `constant` is the log-odds exactly.
 */
export function explain(
  { columns, values, words, parts, meaning }: TextVector,
  { table }: Pick<Vocabulary, 'table'>,
  model: LinearModel,
  { slope, shift }: Calibration,
): { parts: WordPart[]; constant: number } {
  const sums = new Float64Array(words.length);
  for (let k = 0; k < parts.word.length; k++) {
    const entry = parts.entry[k]!;
    // a column beyond the weights was in no text that the model was fitted to
    const weight = model.weights[columns[entry]!] ?? 0;
    sums[parts.word[k]!]! += slope * parts.share[k]! * values[entry]! * weight;
  }
  meaning.row.forEach((row, w) => {
    if (table && row !== -1)
      sums[w]! += slope * meaning.times[w]! * table.along(row, model.weights);
  });
  return {
    parts: words.map((word, w) => ({ word, weight: sums[w]! })),
    constant: slope * model.intercept + shift,
  };
}

/** A word that speaks for or against a code. */
export interface WordWeight {
  word: string;
  /** Mean contribution to the log-odds over the answers that use the word. */
  weight: number;
  answers: number;
}

/**
 * How much of each column every word brings in, summed over many texts. What a word contributes to a
 * model is linear in this, so that the texts are gone through once for all models.
 */
export interface WordShares {
  words: {
    word: string;
    answers: number;
    columns: Int32Array;
    sums: Float64Array;
    /** Its row in the table of word vectors, and how many times its vector was brought in. */
    row: number;
    times: number;
  }[];
  table: WordTable | null;
}

/** Collects the word shares of texts; words used in one answer only are left out. */
export function wordShareBuilder({ learnt, table }: Vocabulary): {
  add: (vector: TextVector) => void;
  shares: () => WordShares;
} {
  const gathered = new Map<
    string,
    { answers: number; sums: Map<number, number>; row: number; times: number }
  >();
  return {
    add({ columns, values, words, parts, meaning }) {
      const ofText = words.map((word, w) => {
        let one = gathered.get(word);
        if (!one)
          gathered.set(
            word,
            (one = { answers: 0, sums: new Map(), row: meaning.row[w]!, times: 0 }),
          );
        one.answers += 1;
        one.times += meaning.times[w]!;
        return one;
      });
      for (let k = 0; k < parts.word.length; k++) {
        const entry = parts.entry[k]!;
        const column = columns[entry]!;
        if (column >= learnt) continue;
        const { sums } = ofText[parts.word[k]!]!;
        sums.set(column, (sums.get(column) ?? 0) + parts.share[k]! * values[entry]!);
      }
    },
    shares: () => ({
      table,
      words: [...gathered]
        .filter(([, { answers }]) => answers >= 2)
        .map(([word, { answers, sums, row, times }]) => ({
          ...{ word, answers, row, times },
          columns: Int32Array.from(sums.keys()),
          sums: Float64Array.from(sums.values()),
        })),
    }),
  };
}

/**
 * The words that speak most for a code and most against it: by their mean contribution times the root
 * of how many answers use them.
 */
export function weighWords(
  { words, table }: WordShares,
  model: LinearModel,
  { slope }: Calibration,
  most: number,
): { wordsFor: WordWeight[]; wordsAgainst: WordWeight[] } {
  const pull = (one: WordWeight) => one.weight * Math.sqrt(one.answers);
  const weighed = words
    .map(({ word, answers, columns, sums, row, times }): WordWeight => {
      let sum = table && row !== -1 ? times * table.along(row, model.weights) : 0;
      for (let k = 0; k < columns.length; k++) sum += sums[k]! * model.weights[columns[k]!]!;
      return { word, answers, weight: (slope * sum) / answers };
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
