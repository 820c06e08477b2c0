import { splitWords } from '../../text/index.js';
import { newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { WordEmbeddings } from './wordEmbeddings.js';

/** Properties of words by word id. Arrays are replaced when they grow. */
export interface KnownWords {
  forms: string[];
  /** Column of the word, −1 for none. */
  column: Int32Array;
  /**
   * Columns of the runs of characters of word w, a run as often as it stands in the word: run[firstRun[w]] …
   * run[firstRun[w + 1] − 1]. And Σ idf² of these.
   */
  firstRun: Int32Array;
  run: Int32Array;
  runSquares: Float64Array;
  /** Its idf in the mean of embeddings. */
  idf: Float64Array;
}

export const formsOf = (text: string, struck: ReadonlySet<string>): string[] => {
  const forms = splitWords(text).map(({ form }) => form);
  return struck.size === 0 ? forms : forms.filter((form) => !struck.has(form));
};

const SHORTEST_RUN = 2;
const LONGEST_RUN = 5;

/**
 * Runs of 2 to 5 characters inside a word padded by one space on either side; a padded word shorter
 * than the run counts once, whole.
 *
 * @see the `char_wb` analyser as documented in the user guide of scikit-learn (Pedregosa et al. 2011)
 */
export function characterRuns(
  word: string,
  shortest = SHORTEST_RUN,
  longest = LONGEST_RUN,
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

/** Words by id, in order of first appearance. */
export interface Lexicon {
  words: KnownWords;
  /** Word ids of a text in order, without excluded words. Valid until the next call. */
  wordsOf: (text: string) => Int32Array;
  /** The number of features so far; and adding one. */
  features: () => number;
  nextFeature: () => number;
  /** Maps feature ids to columns. Words that appear later get only runs that are known. */
  settle: (
    columnOf: Int32Array,
    idf: Float64Array,
    more: { vectors: WordEmbeddings; rarest: number },
  ) => void;
}

/** @param struck forms of words that are read as if they were not there */
export function lexiconOf(struck: ReadonlySet<string>): Lexicon {
  const words: KnownWords = {
    forms: [],
    column: newInts(0),
    firstRun: newInts(1),
    run: newInts(0),
    runSquares: newFloats(0),
    idf: newFloats(0),
  };
  const numberOf = new Map<string, number>();
  const runs = new Map<string, number>();
  let features = 0;
  /** Computes a word's columns; does nothing before there are columns. */
  let weigh: ((word: number) => void) | null = null;
  const numberOfRun = (run: string): number => {
    let number = runs.get(run);
    if (number === undefined) {
      if (weigh) return -1;
      runs.set(run, (number = features++));
    }
    return number;
  };
  const meet = (form: string): number => {
    const word = words.forms.length;
    words.forms.push(form);
    numberOf.set(form, word);
    words.column = withCapacity(words.column, word + 1, newInts);
    words.column[word] = weigh ? -1 : features++;
    const those = characterRuns(form)
      .map(numberOfRun)
      .filter((run) => run !== -1);
    const from = words.firstRun[word]!;
    words.run = withCapacity(words.run, from + those.length, newInts);
    words.run.set(those, from);
    words.firstRun = withCapacity(words.firstRun, word + 2, newInts);
    words.firstRun[word + 1] = from + those.length;
    weigh?.(word);
    return word;
  };

  // texts are read several times: one array holds for each its length and its word ids
  let said = newInts(0);
  let remembered = 0;
  const placeOf = new Map<string, number>();
  const place = (text: string): number => {
    const forms = formsOf(text, struck);
    const at = remembered;
    said = withCapacity(said, at + 1 + forms.length, newInts);
    said[at] = forms.length;
    for (let i = 0; i < forms.length; i++)
      said[at + 1 + i] = numberOf.get(forms[i]!) ?? meet(forms[i]!);
    if (!weigh) {
      remembered += 1 + forms.length;
      placeOf.set(text, at);
    }
    return at;
  };
  return {
    words,
    wordsOf(text) {
      const at = placeOf.get(text) ?? place(text);
      return said.subarray(at + 1, at + 1 + said[at]!);
    },
    features: () => features,
    nextFeature: () => features++,
    settle(columnOf, idf, { vectors, rarest }) {
      const { forms, column, firstRun, run } = words;
      let kept = 0;
      for (let word = 0, k = 0; word < forms.length; word++) {
        column[word] = columnOf[column[word]!]!;
        for (; k < firstRun[word + 1]!; k++) {
          run[kept] = columnOf[run[k]!]!;
          if (run[kept] !== -1) kept += 1;
        }
        firstRun[word + 1] = kept;
      }
      for (const [one, feature] of runs) runs.set(one, columnOf[feature]!);
      weigh = (word) => {
        words.runSquares = withCapacity(words.runSquares, word + 1, newFloats);
        words.idf = withCapacity(words.idf, word + 1, newFloats);
        let squares = 0;
        for (let k = words.firstRun[word]!; k < words.firstRun[word + 1]!; k++)
          squares += idf[words.run[k]!]! ** 2;
        words.runSquares[word] = squares;
        vectors.add(words.forms[word]!);
        const own = words.column[word]!;
        words.idf[word] = own === -1 ? rarest : idf[own]!;
      };
      for (let word = 0; word < forms.length; word++) weigh(word);
    },
  };
}
