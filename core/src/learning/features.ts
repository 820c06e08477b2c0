import { splitWords } from '../text/index.js';

/** Rows of sparse numbers in compressed form: row r holds entries start[r] … start[r + 1] − 1. */
export interface SparseRows {
  start: Int32Array;
  column: Int32Array;
  value: Float64Array;
  columns: number;
}

/** Which feature a column stands for, by its words: contributions go back to them. */
export interface Vocabulary {
  /** Column of a word or pair of words ("w:late boat") or of a run of characters ("c: lat"). */
  columnOf: Map<string, number>;
  idf: Float64Array;
}

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

/** One feature of a text, and the words of the text that share it. */
interface Occurrence {
  feature: string;
  words: string[];
}

/** Every feature of a text, once an occurrence: words, pairs of neighbouring words, character runs. */
function occurrencesIn(text: string): Occurrence[] {
  const words = splitWords(text).map((word) => word.form);
  const found: Occurrence[] = [];
  words.forEach((word, i) => {
    found.push({ feature: `w:${word}`, words: [word] });
    const next = words[i + 1];
    if (next !== undefined) found.push({ feature: `w:${word} ${next}`, words: [word, next] });
    for (const run of characterRuns(word)) found.push({ feature: `c:${run}`, words: [word] });
  });
  return found;
}

/**
 * Learns the vocabulary of a question from all its answers, coded or not.
 *
 * Features in fewer than `minAnswers` answers are left out; idf = ln((1 + N) / (1 + df)) + 1.
 *
 * @see Salton & Buckley (1988) Term-weighting approaches in automatic text retrieval
 */
export function learnVocabulary(answers: readonly string[], minAnswers = 2): Vocabulary {
  const frequency = new Map<string, number>();
  for (const answer of answers)
    for (const feature of new Set(occurrencesIn(answer).map((one) => one.feature)))
      frequency.set(feature, (frequency.get(feature) ?? 0) + 1);
  const kept = [...frequency].filter(([, df]) => df >= minAnswers);
  return {
    columnOf: new Map(kept.map(([feature], column) => [feature, column])),
    idf: Float64Array.from(kept, ([, df]) => Math.log((1 + answers.length) / (1 + df)) + 1),
  };
}

/** A text as numbers: its columns in ascending order, and for each the words that brought it in. */
export interface TextVector {
  columns: Int32Array;
  values: Float64Array;
  /** Words behind each column, with their part of it; the parts of one column add up to 1. */
  sources: Map<string, number>[];
}

/**
 * Turns a text into tf-idf numbers: tf = 1 + ln(count), words and character runs each scaled to
 * length 1.
 */
export function vectorise(text: string, { columnOf, idf }: Vocabulary): TextVector {
  const counts = new Map<number, { count: number; block: 0 | 1; words: Map<string, number> }>();
  for (const { feature, words } of occurrencesIn(text)) {
    const column = columnOf.get(feature);
    if (column === undefined) continue;
    let entry = counts.get(column);
    if (!entry) {
      entry = { count: 0, block: feature.startsWith('w:') ? 0 : 1, words: new Map() };
      counts.set(column, entry);
    }
    entry.count += 1;
    for (const word of words)
      entry.words.set(word, (entry.words.get(word) ?? 0) + 1 / words.length);
  }
  const entries = [...counts].sort(([x], [y]) => x - y);
  const squares: [number, number] = [0, 0];
  const raw = entries.map(([column, { count, block }]) => {
    const value = (1 + Math.log(count)) * idf[column]!;
    squares[block] += value * value;
    return value;
  });
  const lengths = squares.map(Math.sqrt);
  return {
    columns: Int32Array.from(entries, ([column]) => column),
    values: Float64Array.from(entries, ([, { block }], i) => raw[i]! / lengths[block]!),
    sources: entries.map(([, { count, words }]) => {
      for (const [word, part] of words) words.set(word, part / count);
      return words;
    }),
  };
}

/** Stacks vectors into rows. */
export function stack(vectors: readonly TextVector[], columns: number): SparseRows {
  const start = new Int32Array(vectors.length + 1);
  vectors.forEach((vector, r) => {
    start[r + 1] = start[r]! + vector.columns.length;
  });
  const column = new Int32Array(start.at(-1)!);
  const value = new Float64Array(start.at(-1)!);
  vectors.forEach((vector, r) => {
    column.set(vector.columns, start[r]);
    value.set(vector.values, start[r]);
  });
  return { start, column, value, columns };
}
