import type { TextVector, Vocabulary } from './features.js';
import type { LinearModel } from './linearModel.js';
import type { Calibration } from './platt.js';
import type { WordTable } from './wordTable.js';

/** What a word of a text adds to the log-odds of a code. */
export interface WordPart {
  word: string;
  weight: number;
}

export interface Explained {
  parts: WordPart[];
  constant: number;
}

/**
 * Makes the function that takes the log-odds of a text apart into what each of its words adds. A pair of words is
 * shared equally by the two, a run of characters goes to the words that it stands in, the text's meaning to the words
 * whose vectors make it up. The model is linear, so Σ weights + `constant` is the log-odds exactly.
 */
export function explainer(
  { table }: Pick<Vocabulary, 'table'>,
  { weights, intercept }: LinearModel,
  { slope, shift }: Calibration,
): (vector: TextVector) => Explained {
  /** How far each word's vector points along the weights, by row of the table, as far as it was asked for. */
  const along = new Map<number, number>();
  const alongWeights = (table: WordTable, row: number): number => {
    let one = along.get(row);
    if (one === undefined) along.set(row, (one = table.along(row, weights)));
    return one;
  };
  const constant = slope * intercept + shift;
  return ({ columns, values, words, parts, meaning }) => {
    const sums = new Array<number>(words.length).fill(0);
    const { word, entry, share } = parts;
    for (let k = 0; k < word.length; k++) {
      const at = entry[k]!;
      const column = columns[at]!;
      // a column beyond the weights was in no text that the model was fitted to
      if (column < weights.length) sums[word[k]!]! += share[k]! * values[at]! * weights[column]!;
    }
    return {
      parts: words.map((form, w) => {
        const row = meaning.row[w]!;
        const meant = table && row !== -1 ? meaning.times[w]! * alongWeights(table, row) : 0;
        return { word: form, weight: slope * (sums[w]! + meant) };
      }),
      constant,
    };
  };
}

/** A word that speaks for or against a code. */
export interface WordWeight {
  word: string;
  /** Mean contribution to the log-odds over the answers that use the word: of very many answers, over a part of them. */
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
    /** Answers that use it, and those of them that the sums are of. */
    answers: number;
    summed: number;
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
  /** Tells the different words of an answer. */
  count: (words: readonly string[]) => void;
  /** Sums up what the words of an answer that was counted bring in. */
  add: (vector: TextVector) => void;
  shares: () => WordShares;
} {
  const answersWith = new Map<string, number>();
  const gathered = new Map<string, GatheredWord>();
  return {
    count(words) {
      for (const word of words) answersWith.set(word, (answersWith.get(word) ?? 0) + 1);
    },
    add({ columns, values, words, parts, meaning }) {
      const ofText = words.map((word, w) => {
        let one = gathered.get(word);
        if (!one)
          gathered.set(
            word,
            (one = {
              ...{ summed: 0, row: meaning.row[w]!, times: 0 },
              ...{ columns: [], sums: [], placeOf: new Map(), next: 0 },
            }),
          );
        one.summed += 1;
        one.times += meaning.times[w]!;
        return one;
      });
      for (let k = 0; k < parts.word.length; k++) {
        const entry = parts.entry[k]!;
        const column = columns[entry]!;
        if (column >= learnt) continue;
        const one = ofText[parts.word[k]!]!;
        const place = one.columns[one.next] === column ? one.next : placeOf(one, column);
        one.sums[place]! += parts.share[k]! * values[entry]!;
        one.next = place + 1;
      }
    },
    shares: () => ({
      table,
      words: [...gathered].flatMap(([word, { summed, columns, sums, row, times }]) => {
        const answers = answersWith.get(word) ?? 0;
        if (answers < 2) return [];
        return [
          {
            ...{ word, answers, summed, row, times },
            columns: Int32Array.from(columns),
            sums: Float64Array.from(sums),
          },
        ];
      }),
    }),
  };
}

interface GatheredWord {
  summed: number;
  row: number;
  times: number;
  columns: number[];
  sums: number[];
  placeOf: Map<number, number>;
  /** Where its next column likely is: a word's runs of characters come in the same order each time. */
  next: number;
}

function placeOf(word: GatheredWord, column: number): number {
  let place = word.placeOf.get(column);
  if (place === undefined) {
    place = word.columns.length;
    word.placeOf.set(column, place);
    word.columns.push(column);
    word.sums.push(0);
  }
  return place;
}

/**
 * The words that speak most for a code and most against it: by their mean contribution, in the answers that sums are
 * of, times the root of how many answers use them.
 */
export function weighWords(
  { words, table }: WordShares,
  model: LinearModel,
  { slope }: Calibration,
  most: number,
): { wordsFor: WordWeight[]; wordsAgainst: WordWeight[] } {
  const pull = (one: WordWeight) => one.weight * Math.sqrt(one.answers);
  const weighed = words
    .map(({ word, answers, summed, columns, sums, row, times }): WordWeight => {
      let sum = table && row !== -1 ? times * table.along(row, model.weights) : 0;
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
