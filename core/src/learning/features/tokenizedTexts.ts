import { lengthOf, newFloats, newFloats32, newInts, withCapacity } from '../solver/vectors.js';
import type { SentenceBlock } from '../../sentences/index.js';
import type { Vocabulary } from './vocabulary.js';

/**
 * Texts in compressed sparse rows, by word: the same vectors as those of `vectoriser`, in a quarter of the numbers. A
 * word's character runs and its embedding are the same in every text, so they are stored as one entry with a factor; only
 * what differs, where a run occurs several times in a text, is stored by column.
 */
export interface TokenizedTexts {
  /** Number of texts. */
  count: number;
  /**
   * The distinct words of text t are entries firstWord[t] … firstWord[t + 1] − 1, with the factors of the sum of their
   * runs and of their embedding.
   */
  firstWord: Int32Array;
  words: Int32Array;
  runs: Float64Array;
  meanings: Float64Array;
  /**
   * Further contributions of words by column, `partWord` being the word's entry: the word itself, half of each pair, and
   * the difference for runs that occur several times in the text.
   */
  firstPart: Int32Array;
  partWord: Int32Array;
  partColumn: Int32Array;
  partAmount: Float64Array;
  /** These parts summed by text and column. */
  firstEntry: Int32Array;
  column: Int32Array;
  amount: Float64Array;
  /** Vectors of the texts as sentences, one after the other; zeros where a text has none. */
  sentences: Float32Array;
}

/** The vector of a text as a sentence, as a view. */
export const sentenceOf = (
  { sentences }: Pick<TokenizedTexts, 'sentences'>,
  { size }: Pick<SentenceBlock, 'size'>,
  text: number,
): Float32Array => sentences.subarray(text * size, (text + 1) * size);

/**
 * Tokenizes texts into `texts`, which grows with each. Everything else is working storage of one text, kept so that
 * nothing is allocated for the next.
 */
export class Tokenizer {
  private readonly vocabulary: Vocabulary;
  private readonly tokenized: TokenizedTexts = {
    count: 0,
    words: newInts(0),
    firstWord: newInts(1),
    firstPart: newInts(1),
    firstEntry: newInts(1),
    runs: newFloats(0),
    meanings: newFloats(0),
    partWord: newInts(0),
    partColumn: newInts(0),
    partAmount: newFloats(0),
    column: newInts(0),
    amount: newFloats(0),
    sentences: newFloats32(0),
  };
  /** Count of each pair in the current text. */
  private readonly pairCounts: Int32Array;
  /**
   * By run, the word that last had it, as an index among all words read so far; for a run that occurs several times in
   * the current text, −1 minus its index among these.
   */
  private readonly lastHad: Int32Array;
  /** Index among all words read of the current text's first. */
  private firstRead = 1;
  /** By word id, 1 + its index in the current text; 0 if it is not there. */
  private indexOfWord = newInts(0);
  /** By word of the current text, how often it occurs. */
  private wordCounts = newInts(0);
  /** Repeated runs: ids, counts, and the scaled difference of each occurrence to its idf. */
  private repeatedRuns = newInts(0);
  private repeatedCounts = newInts(0);
  private differences = newFloats(0);
  /** Occurrences of repeated runs: index of the run, index of the word. */
  private occurrences = newInts(0);
  /** Pairs in order: column, and indices of both words. */
  private pairs = newInts(0);
  /** Parts and entries of all texts so far. */
  private parts = 0;
  private entries = 0;

  constructor(vocabulary: Vocabulary) {
    this.vocabulary = vocabulary;
    this.pairCounts = new Int32Array(vocabulary.idf.length);
    this.lastHad = new Int32Array(vocabulary.idf.length);
  }

  /** Texts read since the last `forget`. Arrays are replaced when they grow. */
  get texts(): Readonly<TokenizedTexts> {
    return this.tokenized;
  }

  /** Forgets the texts; their storage is used again. */
  forget(): void {
    this.tokenized.count = 0;
  }

  /** Reads one more text, without columns that occur in no text that is learnt from. */
  read(text: string): void {
    const texts = this.tokenized;
    const { count } = texts;
    const first = texts.firstWord[count]!;
    const { words, pairs, runs } = this.listWords(text, first);
    this.repeatedRuns = withCapacity(this.repeatedRuns, runs, newInts);
    this.repeatedCounts = withCapacity(this.repeatedCounts, runs, newInts);
    this.differences = withCapacity(this.differences, runs, newFloats);
    this.occurrences = withCapacity(this.occurrences, 2 * runs, newInts);
    const { repeats, holds } = this.listRepeated(first, words);
    const scale = this.scalesOf(first, words, repeats, pairs);
    this.reserve(words, words + 2 * pairs + holds, words + repeats + pairs);
    this.addMeanings(first, words);
    this.parts = texts.firstPart[count]!;
    this.entries = texts.firstEntry[count]!;
    this.addRepeatedRuns(first, repeats, holds, scale.runs);
    this.addWords(first, words, scale);
    this.addPairs(first, pairs, scale.words);
    this.addSentence(text, count);
    texts.firstWord[count + 1] = first + words;
    texts.firstPart[count + 1] = this.parts;
    texts.firstEntry[count + 1] = this.entries;
    texts.count += 1;
  }

  private reserve(words: number, parts: number, entries: number): void {
    const texts = this.tokenized;
    const { count } = texts;
    texts.firstWord = withCapacity(texts.firstWord, count + 2, newInts);
    texts.firstPart = withCapacity(texts.firstPart, count + 2, newInts);
    texts.firstEntry = withCapacity(texts.firstEntry, count + 2, newInts);
    const ofWords = texts.firstWord[count]! + words;
    texts.runs = withCapacity(texts.runs, ofWords, newFloats);
    texts.meanings = withCapacity(texts.meanings, ofWords, newFloats);
    const ofParts = texts.firstPart[count]! + parts;
    texts.partWord = withCapacity(texts.partWord, ofParts, newInts);
    texts.partColumn = withCapacity(texts.partColumn, ofParts, newInts);
    texts.partAmount = withCapacity(texts.partAmount, ofParts, newFloats);
    const ofEntries = texts.firstEntry[count]! + entries;
    texts.column = withCapacity(texts.column, ofEntries, newInts);
    texts.amount = withCapacity(texts.amount, ofEntries, newFloats);
  }

  /** Lists the distinct words of a text and counts them and their pairs. */
  private listWords(text: string, first: number): { words: number; pairs: number; runs: number } {
    const { vocabulary, tokenized: texts, pairCounts } = this;
    const all = vocabulary.wordsOf(text);
    const { firstRun, forms } = vocabulary.words;
    this.indexOfWord = withCapacity(this.indexOfWord, forms.length, newInts);
    this.wordCounts = withCapacity(this.wordCounts, all.length, newInts);
    this.pairs = withCapacity(this.pairs, 3 * all.length, newInts);
    texts.words = withCapacity(texts.words, first + all.length, newInts);
    const { indexOfWord, wordCounts } = this;
    let [words, pairs, runs] = [0, 0, 0];
    for (let i = 0; i < all.length; i++) {
      const word = all[i]!;
      if (indexOfWord[word] === 0) {
        texts.words[first + words] = word;
        wordCounts[words++] = 0;
        indexOfWord[word] = words;
        runs += firstRun[word + 1]! - firstRun[word]!;
      }
      wordCounts[indexOfWord[word]! - 1]! += 1;
      const pair = i > 0 ? vocabulary.pairColumn(all[i - 1]!, word) : -1;
      if (pair === -1) continue;
      pairCounts[pair]! += 1;
      this.pairs[3 * pairs] = pair;
      this.pairs[3 * pairs + 1] = indexOfWord[all[i - 1]!]! - 1;
      this.pairs[3 * pairs++ + 2] = indexOfWord[word]! - 1;
    }
    for (let w = first; w < first + words; w++) indexOfWord[texts.words[w]!] = 0;
    return { words, pairs, runs };
  }

  /** Lists runs that occur several times, and the words that have them. */
  private listRepeated(first: number, words: number): { repeats: number; holds: number } {
    const { lastHad, repeatedRuns, repeatedCounts, occurrences, wordCounts } = this;
    const { firstRun, run: runs } = this.vocabulary.words;
    if (this.firstRead + words > MOST_READ) {
      lastHad.fill(0);
      this.firstRead = 1;
    }
    const { firstRead } = this;
    let [repeats, holds] = [0, 0];
    const hold = (repeat: number, word: number) => {
      occurrences[2 * holds] = repeat;
      occurrences[2 * holds++ + 1] = word;
    };
    for (let w = 0; w < words; w++) {
      const word = this.tokenized.words[first + w]!;
      const often = wordCounts[w]!;
      const end = firstRun[word + 1]!;
      for (let k = firstRun[word]!; k < end; k++) {
        const run = runs[k]!;
        const before = lastHad[run]!;
        if (before < 0) {
          repeatedCounts[-1 - before]! += often;
          hold(-1 - before, w);
        } else if (before >= firstRead || often > 1) {
          repeatedRuns[repeats] = run;
          repeatedCounts[repeats] = often;
          if (before >= firstRead) {
            repeatedCounts[repeats]! += wordCounts[before - firstRead]!;
            hold(repeats, before - firstRead);
          }
          hold(repeats, w);
          lastHad[run] = -1 - repeats++;
        } else lastHad[run] = firstRead + w;
      }
    }
    for (let i = 0; i < repeats; i++) lastHad[repeatedRuns[i]!] = 0;
    this.firstRead += words;
    return { repeats, holds };
  }

  /** What brings the features of words and pairs, and those of runs, to length 1. */
  private scalesOf(
    first: number,
    words: number,
    repeats: number,
    pairs: number,
  ): { words: number; runs: number } {
    const { wordCounts, pairCounts, repeatedRuns, repeatedCounts } = this;
    const { idf, words: known } = this.vocabulary;
    let [ofWords, ofRuns] = [0, 0];
    for (let w = 0; w < words; w++) {
      const word = this.tokenized.words[first + w]!;
      const column = known.column[word]!;
      if (column !== -1) ofWords += (tf(wordCounts[w]!) * idf[column]!) ** 2;
      ofRuns += wordCounts[w]! * known.runSquares[word]!;
    }
    for (let i = 0; i < pairs; i++) {
      const pair = this.pairs[3 * i]!;
      // a pair comes up once per occurrence
      ofWords += (tf(pairCounts[pair]!) * idf[pair]!) ** 2 / pairCounts[pair]!;
    }
    for (let i = 0; i < repeats; i++) {
      const count = repeatedCounts[i]!;
      ofRuns += (tf(count) ** 2 - count) * idf[repeatedRuns[i]!]! ** 2;
    }
    return {
      words: ofWords > 0 ? 1 / Math.sqrt(ofWords) : 0,
      runs: ofRuns > 0 ? 1 / Math.sqrt(ofRuns) : 0,
    };
  }

  /** The factor of each word's embedding. */
  private addMeanings(first: number, words: number): void {
    const { vectors, words: known } = this.vocabulary;
    const { meanings, words: ids } = this.tokenized;
    meanings.fill(0, first, first + words);
    if (vectors.size === 0) return;
    vectors.begin();
    for (let w = 0; w < words; w++) {
      const word = ids[first + w]!;
      if (!vectors.has(word)) continue;
      meanings[first + w] = tf(this.wordCounts[w]!) * known.idf[word]!;
      vectors.addTimes(word, meanings[first + w]!);
    }
    const length = lengthOf(vectors.sum());
    const scale = length === 0 ? 0 : Math.sqrt(vectors.weight) / length;
    for (let w = first; w < first + words; w++) meanings[w]! *= scale;
  }

  private addRepeatedRuns(first: number, repeats: number, holds: number, scale: number): void {
    const { repeatedRuns, repeatedCounts, differences, occurrences, wordCounts } = this;
    const { idf, learnt } = this.vocabulary;
    for (let i = 0; i < repeats; i++) {
      const run = repeatedRuns[i]!;
      const often = repeatedCounts[i]!;
      differences[i] = (tf(often) / often - 1) * idf[run]! * scale;
      if (run < learnt) this.addEntry(run, often * differences[i]!);
    }
    for (let h = 0; h < holds; h++) {
      const i = occurrences[2 * h]!;
      const w = occurrences[2 * h + 1]!;
      if (repeatedRuns[i]! < learnt)
        this.addPart(first + w, repeatedRuns[i]!, wordCounts[w]! * differences[i]!);
    }
  }

  private addWords(first: number, words: number, scale: { words: number; runs: number }): void {
    const { wordCounts, tokenized: texts } = this;
    const { idf, learnt, words: known } = this.vocabulary;
    for (let w = 0; w < words; w++) {
      const column = known.column[texts.words[first + w]!]!;
      texts.runs[first + w] = wordCounts[w]! * scale.runs;
      if (column === -1 || column >= learnt) continue;
      const amount = tf(wordCounts[w]!) * idf[column]! * scale.words;
      this.addEntry(column, amount);
      this.addPart(first + w, column, amount);
    }
  }

  private addPairs(first: number, count: number, scale: number): void {
    const { pairs, pairCounts } = this;
    const { idf, learnt } = this.vocabulary;
    for (let i = 0; i < count; i++) {
      const pair = pairs[3 * i]!;
      if (pair >= learnt) continue;
      const share = (tf(pairCounts[pair]!) * idf[pair]! * scale) / pairCounts[pair]!;
      this.addEntry(pair, share);
      this.addPart(first + pairs[3 * i + 1]!, pair, share / 2);
      this.addPart(first + pairs[3 * i + 2]!, pair, share / 2);
    }
    for (let i = 0; i < count; i++) pairCounts[pairs[3 * i]!] = 0;
  }

  private addSentence(text: string, count: number): void {
    const { sentences } = this.vocabulary;
    if (sentences.size === 0) return;
    const { tokenized: texts } = this;
    texts.sentences = withCapacity(texts.sentences, (count + 1) * sentences.size, newFloats32);
    const into = sentenceOf(texts, sentences, count);
    const vector = sentences.of(text);
    if (vector) into.set(vector);
    else into.fill(0);
  }

  private addPart(word: number, column: number, amount: number): void {
    const { partWord, partColumn, partAmount } = this.tokenized;
    partWord[this.parts] = word;
    partColumn[this.parts] = column;
    partAmount[this.parts++] = amount;
  }

  private addEntry(column: number, amount: number): void {
    this.tokenized.column[this.entries] = column;
    this.tokenized.amount[this.entries++] = amount;
  }
}

/** Words after which places start again from 1, as they are kept in 32-bit integers. */
const MOST_READ = 2 ** 30;
const FEW = 64;
const few = Float64Array.from({ length: FEW }, (_, count) => 1 + Math.log(count));
/** Term frequency of a feature with this count: 1 + ln(count). */
const tf = (count: number): number => (count < FEW ? few[count]! : 1 + Math.log(count));
