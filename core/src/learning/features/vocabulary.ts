import { Lexicon, type KnownWords } from './lexicon.js';
import { newInts, withCapacity } from '../solver/vectors.js';
import { pairTable, type PairTable } from './pairTable.js';
import type { WordTable } from './wordTable.js';
import { NO_SENTENCES, type SentenceBlock } from '../../sentences/index.js';
import { wordEmbeddings, type WordEmbeddings } from './wordEmbeddings.js';

/**
 * Maps features (words, pairs of words, character runs) to columns. The leading columns are those of the embeddings, if
 * there are any, and then those of sentence vectors.
 */
export interface Vocabulary {
  /** By column; 0 for those of embeddings and sentence vectors. */
  idf: Float64Array;
  /**
   * Columns below this number occur in texts that are learnt from; the others can have no weight and
   * only count towards a text's length.
   */
  learnt: number;
  vectors: WordEmbeddings;
  /** Vectors of whole texts, their columns behind those of `vectors`. */
  sentences: SentenceBlock;
  words: Readonly<KnownWords>;
  /** Word ids of a text in order, without excluded words. Valid until the next call. */
  wordsOf: (text: string) => Int32Array;
  /** Column of a pair of adjacent words, −1 for none. */
  pairColumn: (word: number, next: number) => number;
}

export interface VocabularyOptions {
  /** Texts that models will be fitted to: their features get the lowest columns. Otherwise all answers. */
  learntFrom?: readonly string[];
  minAnswers?: number;
  table?: WordTable | null;
  sentences?: SentenceBlock;
  /** Excluded words, by their folded forms. */
  excluded?: ReadonlySet<string>;
}

/** Inverse document frequency, smoothed: ln((1 + N) / (1 + df)) + 1. */
export const inverseFrequency = (texts: number, inTexts: number): number =>
  Math.log((1 + texts) / (1 + inTexts)) + 1;

/**
 * Learns the vocabulary of a question from all its answers, coded or not.
 *
 * Features in fewer than `minAnswers` answers are left out; idf = ln((1 + N) / (1 + df)) + 1. A word without a
 * column weighs in a text's meaning as if one answer had it.
 *
 * @see Salton & Buckley (1988) Term-weighting approaches in automatic text retrieval
 */
export function learnVocabulary(
  answers: readonly string[],
  {
    learntFrom = answers,
    minAnswers = 2,
    table = null,
    sentences = NO_SENTENCES,
    excluded = new Set(),
  }: VocabularyOptions = {},
): Vocabulary {
  const lexicon = new Lexicon(excluded);
  const { words } = lexicon;
  const { frequency, pairs } = countFeatures(answers, learntFrom, lexicon);

  const columnOf = new Int32Array(lexicon.features).fill(-1);
  const vectors = wordEmbeddings(table);
  let columns = vectors.size + sentences.size;
  const keep = (feature: number) => {
    // features of codebook texts alone are in no answer
    if (columnOf[feature] === -1 && frequency[feature]! >= minAnswers)
      columnOf[feature] = columns++;
  };
  for (const text of learntFrom) {
    const said = lexicon.wordsOf(text);
    said.forEach((word, i) => {
      if (i > 0) keep(pairs.get(said[i - 1]!, word));
      keep(words.column[word]!);
      for (let k = words.firstRun[word]!; k < words.firstRun[word + 1]!; k++) keep(words.run[k]!);
    });
  }
  const learnt = columns;
  for (let feature = 0; feature < columnOf.length; feature++) keep(feature);
  const idf = new Float64Array(columns);
  columnOf.forEach((column, feature) => {
    if (column !== -1) idf[column] = inverseFrequency(answers.length, frequency[feature]!);
  });
  lexicon.settle(columnOf, { idf, vectors, rarest: inverseFrequency(answers.length, 1) });
  const pairColumns = pairTable();
  pairs.forEach((word, next, feature) => {
    if (columnOf[feature] !== -1) pairColumns.add(word, next, columnOf[feature]!);
  });
  return {
    idf,
    learnt,
    vectors,
    sentences,
    words,
    wordsOf: (text) => lexicon.wordsOf(text),
    pairColumn: pairColumns.get,
  };
}

/** How many answers have each feature, and which features pairs of words are. */
function countFeatures(
  answers: readonly string[],
  others: readonly string[],
  lexicon: Lexicon,
): { frequency: Int32Array; pairs: PairTable } {
  const { words } = lexicon;
  const pairs = pairTable();
  let frequency = new Int32Array(1024);
  let lastSeenIn = new Int32Array(1024);
  const readPairs = (said: Int32Array) => {
    for (let i = 1; i < said.length; i++)
      if (pairs.get(said[i - 1]!, said[i]!) === -1)
        pairs.add(said[i - 1]!, said[i]!, lexicon.nextFeature());
  };
  const count = (said: Int32Array, text: number) => {
    const { column, firstRun, run } = words;
    const see = (feature: number): boolean => {
      if (lastSeenIn[feature] === text) return false;
      lastSeenIn[feature] = text;
      frequency[feature]! += 1;
      return true;
    };
    for (let i = 0; i < said.length; i++) {
      const word = said[i]!;
      if (i > 0) see(pairs.get(said[i - 1]!, word));
      // the runs of a counted word are counted too
      if (!see(column[word]!)) continue;
      for (let k = firstRun[word]!; k < firstRun[word + 1]!; k++) see(run[k]!);
    }
  };
  answers.forEach((answer, a) => {
    const said = lexicon.wordsOf(answer);
    readPairs(said);
    frequency = withCapacity(frequency, lexicon.features, newInts);
    lastSeenIn = withCapacity(lastSeenIn, lexicon.features, newInts);
    count(said, a + 1);
  });
  for (const text of others) readPairs(lexicon.wordsOf(text));
  return { frequency: withCapacity(frequency, lexicon.features, newInts), pairs };
}
