import { splitWords } from '../text/index.js';
import type { WordTable } from './wordTable.js';

/** Rows of sparse numbers in compressed form: row r holds entries start[r] … start[r + 1] − 1. */
export interface SparseRows {
  start: Int32Array;
  column: Int32Array;
  value: Float64Array;
  columns: number;
}

/**
 * Which column stands for a feature: a word or pair of words ("w:late boat") or a run of characters
 * ("c: lat"). The first columns are those of the word vectors, if there are any.
 */
export interface Vocabulary {
  columnOf: Map<string, number>;
  /** By column; nothing for those of the word vectors. */
  idf: Float64Array;
  /**
   * Columns below this number occur in texts that are learnt from; the others can have no weight and
   * only count towards a text's length.
   */
  learnt: number;
  /** What a word in fewer answers than the vocabulary asks for weighs in a text's meaning. */
  rarestIdf: number;
  table: WordTable | null;
  /** Forms of words that are read as if they were not there. */
  struck: ReadonlySet<string>;
}

export interface VocabularyOptions {
  /** Texts that models will be fitted to: their features get the lowest columns. Otherwise all answers. */
  learntFrom?: readonly string[];
  minAnswers?: number;
  table?: WordTable | null;
  struck?: ReadonlySet<string>;
}

/** How much the word vectors count beside the words and the character runs, as squared length. */
const MEANING_WEIGHT = 2;

const formsOf = (text: string, struck: ReadonlySet<string>): string[] => {
  const forms = splitWords(text).map(({ form }) => form);
  return struck.size === 0 ? forms : forms.filter((form) => !struck.has(form));
};

const shortestRun = 2;
const longestRun = 5;

/**
 * Runs of 2 to 5 characters inside a word padded by one space on either side; a padded word shorter
 * than the run counts once, whole.
 *
 * @see the `char_wb` analyser as documented in the user guide of scikit-learn (Pedregosa et al. 2011)
 */
export function characterRuns(
  word: string,
  shortest = shortestRun,
  longest = longestRun,
): string[] {
  const padded = [...` ${word} `];
  const runs: string[] = [];
  for (let length = shortest; length <= longest; length++) {
    if (padded.length <= length) {
      runs.push(padded.join(''));
      break;
    }
    for (let i = 0; i + length <= padded.length; i++)
      runs.push(padded.slice(i, i + length).join(''));
  }
  return runs;
}

const ofWord = (word: string) => `w:${word}`;
const ofPair = (word: string, next: string) => `w:${word} ${next}`;
const ofRun = (run: string) => `c:${run}`;

/** Numbers of a word's character runs, worked out once a word however often it is used. */
function runNumbers(numberOf: (feature: string) => number): (word: string) => Int32Array {
  const known = new Map<string, Int32Array>();
  return (word) => {
    let numbers = known.get(word);
    if (!numbers) {
      numbers = Int32Array.from(characterRuns(word), (run) => numberOf(ofRun(run)));
      known.set(word, numbers);
    }
    return numbers;
  };
}

/**
 * Learns the vocabulary of a question from all its answers, coded or not.
 *
 * Features in fewer than `minAnswers` answers are left out; idf = ln((1 + N) / (1 + df)) + 1.
 *
 * @see Salton & Buckley (1988) Term-weighting approaches in automatic text retrieval
 */
export function learnVocabulary(
  answers: readonly string[],
  {
    learntFrom = answers,
    minAnswers = 2,
    table = null,
    struck = new Set(),
  }: VocabularyOptions = {},
): Vocabulary {
  const ids = new Map<string, number>();
  const idOf = (feature: string): number => {
    let id = ids.get(feature);
    if (id === undefined) ids.set(feature, (id = ids.size));
    return id;
  };
  const runsOf = runNumbers(idOf);
  const visit = (text: string, add: (id: number) => void) => {
    const forms = formsOf(text, struck);
    forms.forEach((form, i) => {
      add(idOf(ofWord(form)));
      const next = forms[i + 1];
      if (next !== undefined) add(idOf(ofPair(form, next)));
      runsOf(form).forEach(add);
    });
  };

  const frequency: number[] = [];
  const lastSeenIn: number[] = [];
  answers.forEach((answer, a) =>
    visit(answer, (id) => {
      if (lastSeenIn[id] === a) return;
      lastSeenIn[id] = a;
      frequency[id] = (frequency[id] ?? 0) + 1;
    }),
  );

  const kept = new Set<number>();
  const keep = (id: number) => {
    if ((frequency[id] ?? 0) >= minAnswers) kept.add(id);
  };
  for (const text of learntFrom) visit(text, keep);
  const learnt = kept.size;
  frequency.forEach((_, id) => keep(id));
  const features = [...ids.keys()];
  const first = table?.size ?? 0;
  const idfOf = (inAnswers: number) => Math.log((1 + answers.length) / (1 + inAnswers)) + 1;
  const idf = new Float64Array(first + kept.size);
  idf.set(
    Float64Array.from(kept, (id) => idfOf(frequency[id]!)),
    first,
  );
  return {
    columnOf: new Map([...kept].map((id, place) => [features[id]!, first + place])),
    idf,
    learnt: first + learnt,
    rarestIdf: idfOf(1),
    table,
    struck,
  };
}

/** A text as numbers, with which of its words brought in how much of each. */
export interface TextVector {
  /** In ascending order. */
  columns: Int32Array;
  values: Float64Array;
  /** The different words of the text. */
  words: string[];
  /** Shares of words in entries: `word` and `entry` are places in the lists above; those of one entry add up to 1. */
  parts: { word: Int32Array; entry: Int32Array; share: Float64Array };
  /**
   * What each word brings into the entries of the word vectors: its own vector, that many times. `row` is its row
   * in the table, −1 where the table does not know it.
   */
  meaning: { row: Int32Array; times: Float64Array };
}

/**
 * Makes the function that turns a text into numbers: tf-idf with tf = 1 + ln(count), words and character
 * runs each scaled to length 1, and the idf-weighted mean of its words' vectors, scaled to length √2. A pair of
 * words is shared equally by the two.
 */
export function vectoriser(vocabulary: Vocabulary): (text: string) => TextVector {
  const { columnOf, idf, struck } = vocabulary;
  const runsOf = runNumbers((feature) => columnOf.get(feature) ?? -1);
  const counts = new Float64Array(idf.length);
  const entryOf = new Int32Array(idf.length);
  const isRun = new Uint8Array(idf.length);
  const meaningOf = meaningReader(vocabulary);
  for (const [feature, column] of columnOf) isRun[column] = Number(feature.startsWith('c:'));
  // what is found in a text is gathered in room that all texts share
  let [foundColumns, foundWords] = [new Int32Array(1024), new Int32Array(1024)];
  let foundShares = new Float64Array(1024);
  let found = 0;
  const give = (column: number, word: number, share: number) => {
    if (found === foundColumns.length) {
      foundColumns = grown(foundColumns, new Int32Array(2 * found));
      foundWords = grown(foundWords, new Int32Array(2 * found));
      foundShares = grown(foundShares, new Float64Array(2 * found));
    }
    foundColumns[found] = column;
    foundWords[found] = word;
    foundShares[found] = share;
    found += 1;
  };

  return (text) => {
    const places = new Map<string, number>();
    const used: number[] = [];
    found = 0;
    const count = (column: number) => {
      if (counts[column]! === 0) used.push(column);
      counts[column]! += 1;
    };
    let before: { form: string; place: number } | null = null;
    const forms = formsOf(text, struck);
    for (const form of forms) {
      let place = places.get(form);
      if (place === undefined) places.set(form, (place = places.size));
      const pair = before ? columnOf.get(ofPair(before.form, form)) : undefined;
      if (before && pair !== undefined) {
        count(pair);
        give(pair, before.place, 0.5);
        give(pair, place, 0.5);
      }
      const alone = columnOf.get(ofWord(form));
      if (alone !== undefined) {
        count(alone);
        give(alone, place, 1);
      }
      for (const run of runsOf(form)) {
        if (run === -1) continue;
        count(run);
        give(run, place, 1);
      }
      before = { form, place };
    }

    const words = [...places.keys()];
    const { sum, ...meaning } = meaningOf(words, forms);
    const first = sum ? sum.length : 0;
    const columns = new Int32Array(first + used.length);
    columns.set(new Int32Array(used).sort(), first);
    const values = new Float64Array(columns.length);
    if (sum) values.set(sum);
    for (let entry = 0; entry < first; entry++) columns[entry] = entry;
    const squares: [number, number] = [0, 0];
    for (let entry = first; entry < columns.length; entry++) {
      const column = columns[entry]!;
      const value = (1 + Math.log(counts[column]!)) * idf[column]!;
      values[entry] = value;
      squares[isRun[column] as 0 | 1] += value * value;
      entryOf[column] = entry;
    }
    const lengths = squares.map(Math.sqrt);
    for (let entry = first; entry < columns.length; entry++)
      values[entry]! /= lengths[isRun[columns[entry]!] as 0 | 1]!;
    const parts = {
      word: foundWords.slice(0, found),
      entry: new Int32Array(found),
      share: foundShares.slice(0, found),
    };
    for (let k = 0; k < found; k++) {
      const column = foundColumns[k]!;
      parts.entry[k] = entryOf[column]!;
      parts.share[k]! /= counts[column]!;
    }
    for (const column of used) counts[column] = 0;
    return { columns, values, words, parts, meaning };
  };
}

/** A larger list that begins as the one before. */
function grown<List extends Int32Array | Float64Array>(list: List, larger: List): List {
  larger.set(list);
  return larger;
}

/** Makes the function that sums the vectors of a text's words, scaled to length √MEANING_WEIGHT. */
function meaningReader({ columnOf, idf, rarestIdf, table }: Vocabulary) {
  const known = new Map<string, { row: number; idf: number }>();
  const look = (word: string) => {
    let one = known.get(word);
    if (!one) {
      const column = columnOf.get(ofWord(word));
      const weight = column === undefined ? rarestIdf : idf[column]!;
      known.set(word, (one = { row: table?.rowOf.get(word) ?? -1, idf: weight }));
    }
    return one;
  };
  return (words: readonly string[], forms: readonly string[]) => {
    const row = new Int32Array(words.length).fill(-1);
    const times = new Float64Array(words.length);
    if (!table) return { row, times, sum: null };
    const placeOf = new Map(words.map((word, place) => [word, place]));
    for (const form of forms) times[placeOf.get(form)!]! += look(form).idf;
    const sum = new Float64Array(table.size);
    words.forEach((word, place) => {
      row[place] = look(word).row;
      if (row[place] === -1) times[place] = 0;
      else table.addTo(sum, row[place], times[place]!);
    });
    const length = Math.sqrt(sum.reduce((square, value) => square + value * value, 0));
    if (length === 0) return { row, times, sum: null };
    const scale = Math.sqrt(MEANING_WEIGHT) / length;
    return {
      row,
      times: times.map((value) => value * scale),
      sum: sum.map((value) => value * scale),
    };
  };
}

/** Collects vectors into rows, without the columns that nothing can be learnt of. */
export function rowBuilder({ learnt }: Vocabulary): {
  add: (vector: TextVector) => void;
  rows: () => SparseRows;
} {
  const start = [0];
  let column = new Int32Array(1024);
  let value = new Float64Array(1024);
  return {
    add({ columns, values }) {
      const from = start.at(-1)!;
      let kept = columns.length;
      while (kept > 0 && columns[kept - 1]! >= learnt) kept -= 1;
      if (from + kept > column.length) {
        column = grown(column, new Int32Array(2 * (from + kept)));
        value = grown(value, new Float64Array(2 * (from + kept)));
      }
      column.set(columns.subarray(0, kept), from);
      value.set(values.subarray(0, kept), from);
      start.push(from + kept);
    },
    rows: () => ({
      start: Int32Array.from(start),
      column: column.slice(0, start.at(-1)),
      value: value.slice(0, start.at(-1)),
      columns: learnt,
    }),
  };
}
