import { splitWords } from '../text/index.js';
import { newFloats, newInts, roomForLists, withRoom, type RoomForLists } from './lists.js';
import type { WordTable } from './wordTable.js';

/** Rows of sparse numbers in compressed form: row r holds entries start[r] … start[r + 1] − 1. */
export interface SparseRows {
  start: Int32Array;
  column: Int32Array;
  value: Float64Array;
  columns: number;
  /** So many of the first columns are filled in nearly all rows: those of the word vectors. */
  common: number;
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

export const formsOf = (text: string, struck: ReadonlySet<string>): string[] => {
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

/** What a feature weighs by its rarity (idf): ln((1 + N) / (1 + df)) + 1. */
export const inverseFrequency = (texts: number, inTexts: number): number =>
  Math.log((1 + texts) / (1 + inTexts)) + 1;

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
  const idf = new Float64Array(first + kept.size);
  idf.set(
    Float64Array.from(kept, (id) => inverseFrequency(answers.length, frequency[id]!)),
    first,
  );
  return {
    columnOf: new Map([...kept].map((id, place) => [features[id]!, first + place])),
    idf,
    learnt: first + learnt,
    rarestIdf: inverseFrequency(answers.length, 1),
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
 * runs each scaled to length 1, and the mean of its words' vectors, weighted in the same way and scaled to the root of their weight. A pair of
 * words is shared equally by the two.
 */
export function vectoriser(vocabulary: Vocabulary): (text: string) => TextVector {
  const { columnOf, idf, struck, table } = vocabulary;
  const known = new Map<string, KnownWord>();
  const counts = new Float64Array(idf.length);
  const entryOf = new Int32Array(idf.length);
  const isRun = new Uint8Array(idf.length);
  for (const [feature, column] of columnOf) isRun[column] = Number(feature.startsWith('c:'));
  const room = roomForLists();
  // what is found in a text is gathered in room that all texts share
  let used = new Int32Array(1024);
  let foundColumns = new Int32Array(1024);
  let foundWords = new Int32Array(1024);
  let foundShares = new Float64Array(1024);
  const pairOf = (word: KnownWord, next: KnownWord): number => {
    let pair = word.pairs.get(next);
    if (pair === undefined)
      word.pairs.set(next, (pair = columnOf.get(ofPair(word.form, next.form)) ?? -1));
    return pair;
  };
  let texts = 0;

  return (text) => {
    texts += 1;
    const words: KnownWord[] = [];
    let [different, found] = [0, 0];
    let before: KnownWord | null = null;
    for (const form of formsOf(text, struck)) {
      let word = known.get(form);
      if (!word) known.set(form, (word = lookUp(form, vocabulary)));
      if (word.lastText !== texts) {
        word.lastText = texts;
        word.place = words.length;
        word.occurrences = 0;
        words.push(word);
      }
      word.occurrences += 1;
      const { columns, place } = word;
      const room = found + columns.length + 2;
      if (room > foundColumns.length) {
        used = withRoom(used, room, newInts);
        foundColumns = withRoom(foundColumns, room, newInts);
        foundWords = withRoom(foundWords, room, newInts);
        foundShares = withRoom(foundShares, room, newFloats);
      }
      const pair = before ? pairOf(before, word) : -1;
      if (before && pair !== -1) {
        if (counts[pair]! === 0) used[different++] = pair;
        counts[pair]! += 1;
        for (const one of [before.place, place]) {
          foundColumns[found] = pair;
          foundWords[found] = one;
          foundShares[found++] = 0.5;
        }
      }
      for (let k = 0; k < columns.length; k++) {
        const column = columns[k]!;
        if (counts[column]! === 0) used[different++] = column;
        counts[column]! += 1;
        foundColumns[found] = column;
        foundWords[found] = place;
        foundShares[found++] = 1;
      }
      before = word;
    }

    const meaning = meaningOf(words, table, room);
    const first = meaning.sum ? meaning.sum.length : 0;
    const columns = room.ints(first + different);
    const values = room.floats(columns.length);
    columns.set(used.subarray(0, different), first);
    columns.subarray(first).sort();
    if (meaning.sum) values.set(meaning.sum);
    for (let entry = 0; entry < first; entry++) columns[entry] = entry;
    let [ofWords, ofRuns] = [0, 0];
    for (let entry = first; entry < columns.length; entry++) {
      const column = columns[entry]!;
      const value = (1 + Math.log(counts[column]!)) * idf[column]!;
      values[entry] = value;
      if (isRun[column] === 1) ofRuns += value * value;
      else ofWords += value * value;
      entryOf[column] = entry;
    }
    [ofWords, ofRuns] = [Math.sqrt(ofWords), Math.sqrt(ofRuns)];
    for (let entry = first; entry < columns.length; entry++)
      values[entry]! /= isRun[columns[entry]!] === 1 ? ofRuns : ofWords;
    const parts = { word: room.ints(found), entry: room.ints(found), share: room.floats(found) };
    for (let k = 0; k < found; k++) {
      const column = foundColumns[k]!;
      parts.word[k] = foundWords[k]!;
      parts.entry[k] = entryOf[column]!;
      parts.share[k] = foundShares[k]! / counts[column]!;
    }
    for (let entry = first; entry < columns.length; entry++) counts[columns[entry]!] = 0;
    return {
      ...{ columns, values, words: words.map(({ form }) => form), parts },
      meaning: { row: meaning.row, times: meaning.times },
    };
  };
}

/** A word with all that is known of it whatever the text. */
interface KnownWord {
  form: string;
  /** Of itself and of its runs of characters, a run as often as it stands in the word. */
  columns: Int32Array;
  /** Columns of the word with another after it, as far as they were asked for; −1 where there is none. */
  pairs: Map<KnownWord, number>;
  /** In the table of word vectors, −1 where it is not in there. */
  row: number;
  idf: number;
  /** The last text that it stood in, its place among that text's words, and how often it stood there. */
  lastText: number;
  place: number;
  occurrences: number;
}

function lookUp(form: string, { columnOf, idf, rarestIdf, table }: Vocabulary): KnownWord {
  const alone = columnOf.get(ofWord(form));
  const features = [ofWord(form), ...characterRuns(form).map(ofRun)];
  return {
    ...{ form, columns: Int32Array.from(features.flatMap((one) => columnOf.get(one) ?? [])) },
    ...{ pairs: new Map(), row: table?.rowOf.get(form) ?? -1 },
    idf: alone === undefined ? rarestIdf : idf[alone]!,
    ...{ lastText: 0, place: 0, occurrences: 0 },
  };
}

/** The sum of the vectors of a text's words, scaled to the root of the table's weight. */
function meaningOf(words: readonly KnownWord[], table: WordTable | null, room: RoomForLists) {
  const row = room.ints(words.length);
  const times = room.floats(words.length);
  row.fill(-1);
  if (!table) return { row, times, sum: null };
  const sum = new Float64Array(table.size);
  words.forEach((word, place) => {
    row[place] = word.row;
    if (word.row === -1) return;
    times[place] = (1 + Math.log(word.occurrences)) * word.idf;
    table.addTo(sum, word.row, times[place]);
  });
  let squares = 0;
  for (let i = 0; i < sum.length; i++) squares += sum[i]! * sum[i]!;
  if (squares === 0) return { row, times, sum: null };
  const scale = Math.sqrt(table.weight / squares);
  for (let place = 0; place < times.length; place++) times[place]! *= scale;
  for (let i = 0; i < sum.length; i++) sum[i]! *= scale;
  return { row, times, sum };
}

/** Collects vectors into rows, without the columns that nothing can be learnt of. */
export function rowBuilder({ learnt, table }: Vocabulary): {
  add: (vector: TextVector) => void;
  rows: () => SparseRows;
} {
  let start = new Int32Array(64);
  let column = new Int32Array(1024);
  let value = new Float64Array(1024);
  let rows = 0;
  return {
    add({ columns, values }) {
      const from = start[rows]!;
      let kept = columns.length;
      while (kept > 0 && columns[kept - 1]! >= learnt) kept -= 1;
      start = withRoom(start, rows + 2, newInts);
      column = withRoom(column, from + kept, newInts);
      value = withRoom(value, from + kept, newFloats);
      column.set(columns.subarray(0, kept), from);
      value.set(values.subarray(0, kept), from);
      start[++rows] = from + kept;
    },
    rows: () => ({
      ...{
        start: start.slice(0, rows + 1),
        column: column.slice(0, start[rows]),
        value: value.slice(0, start[rows]),
      },
      ...{ columns: learnt, common: table?.size ?? 0 },
    }),
  };
}
