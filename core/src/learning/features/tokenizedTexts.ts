import { lengthOf, newFloats, newInts, withCapacity } from '../solver/vectors.js';
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
}

/** Tokenizes texts. */
export interface WordReader {
  /** Texts read since the last `forget`. Arrays are replaced when they grow. */
  readonly texts: Readonly<TokenizedTexts>;
  /** Reads one more, without columns that occur in no text that is learnt from. */
  read: (text: string) => void;
  forget: () => void;
}

export function wordReader(vocabulary: Vocabulary): WordReader {
  const { idf, learnt, vectors, words: known, wordsOf, pairColumn } = vocabulary;
  const texts: TokenizedTexts = {
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
  };
  /** Count of each pair in the current text. */
  const counts = new Int32Array(idf.length);
  /**
   * By run, the word that last had it, as an index among all words read so far; for a run that occurs several times in
   * the current text, −1 minus its index among these.
   */
  const lastHad = new Int32Array(idf.length);
  /** Index among all words read of the current text's first. */
  let firstRead = 1;
  /** By word id, 1 + its index in the current text; 0 if it is not there. */
  let placeOf = newInts(0);
  let times = newInts(0);
  /** Repeated runs: ids, counts, and the scaled difference of each occurrence to its idf. */
  let repeated = newInts(0);
  let repeatedTimes = newInts(0);
  let more = newFloats(0);
  /** Occurrences of repeated runs: index of the run, index of the word. */
  let held = newInts(0);
  /** Pairs in order: column, and indices of both words. */
  let said = newInts(0);

  const makeRoom = (words: number, parts: number, entries: number) => {
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
  };

  /** Lists the distinct words of a text and counts them and their pairs. */
  function listWords(text: string, first: number): { words: number; pairs: number; runs: number } {
    const all = wordsOf(text);
    const { firstRun } = known;
    placeOf = withCapacity(placeOf, known.forms.length, newInts);
    times = withCapacity(times, all.length, newInts);
    said = withCapacity(said, 3 * all.length, newInts);
    texts.words = withCapacity(texts.words, first + all.length, newInts);
    let [words, pairs, runs] = [0, 0, 0];
    for (let i = 0; i < all.length; i++) {
      const word = all[i]!;
      if (placeOf[word] === 0) {
        texts.words[first + words] = word;
        times[words++] = 0;
        placeOf[word] = words;
        runs += firstRun[word + 1]! - firstRun[word]!;
      }
      times[placeOf[word]! - 1]! += 1;
      const pair = i > 0 ? pairColumn(all[i - 1]!, word) : -1;
      if (pair === -1) continue;
      counts[pair]! += 1;
      said[3 * pairs] = pair;
      said[3 * pairs + 1] = placeOf[all[i - 1]!]! - 1;
      said[3 * pairs++ + 2] = placeOf[word]! - 1;
    }
    for (let w = first; w < first + words; w++) placeOf[texts.words[w]!] = 0;
    return { words, pairs, runs };
  }

  /** Lists runs that occur several times, and the words that have them. */
  function listRepeated(first: number, words: number): { repeats: number; holds: number } {
    const { firstRun, run: runs } = known;
    if (firstRead + words > MOST_READ) {
      lastHad.fill(0);
      firstRead = 1;
    }
    let [repeats, holds] = [0, 0];
    const hold = (repeat: number, word: number) => {
      held[2 * holds] = repeat;
      held[2 * holds++ + 1] = word;
    };
    for (let w = 0; w < words; w++) {
      const word = texts.words[first + w]!;
      const often = times[w]!;
      const end = firstRun[word + 1]!;
      for (let k = firstRun[word]!; k < end; k++) {
        const run = runs[k]!;
        const before = lastHad[run]!;
        if (before < 0) {
          repeatedTimes[-1 - before]! += often;
          hold(-1 - before, w);
        } else if (before >= firstRead || often > 1) {
          repeated[repeats] = run;
          repeatedTimes[repeats] = often;
          if (before >= firstRead) {
            repeatedTimes[repeats]! += times[before - firstRead]!;
            hold(repeats, before - firstRead);
          }
          hold(repeats, w);
          lastHad[run] = -1 - repeats++;
        } else lastHad[run] = firstRead + w;
      }
    }
    for (let i = 0; i < repeats; i++) lastHad[repeated[i]!] = 0;
    firstRead += words;
    return { repeats, holds };
  }

  function scalesOf(first: number, words: number, repeats: number, pairs: number) {
    let [ofWords, ofRuns] = [0, 0];
    for (let w = 0; w < words; w++) {
      const word = texts.words[first + w]!;
      const column = known.column[word]!;
      if (column !== -1) ofWords += (tf(times[w]!) * idf[column]!) ** 2;
      ofRuns += times[w]! * known.runSquares[word]!;
    }
    for (let i = 0; i < pairs; i++) {
      const pair = said[3 * i]!;
      // a pair comes up once per occurrence
      ofWords += (tf(counts[pair]!) * idf[pair]!) ** 2 / counts[pair]!;
    }
    for (let i = 0; i < repeats; i++) {
      const count = repeatedTimes[i]!;
      ofRuns += (tf(count) ** 2 - count) * idf[repeated[i]!]! ** 2;
    }
    return {
      words: ofWords > 0 ? 1 / Math.sqrt(ofWords) : 0,
      runs: ofRuns > 0 ? 1 / Math.sqrt(ofRuns) : 0,
    };
  }

  /** The factor of each word's embedding. */
  function tellMeaning(first: number, words: number): void {
    const { meanings } = texts;
    meanings.fill(0, first, first + words);
    if (vectors.size === 0) return;
    vectors.begin();
    for (let w = 0; w < words; w++) {
      const word = texts.words[first + w]!;
      if (!vectors.has(word)) continue;
      meanings[first + w] = tf(times[w]!) * known.idf[word]!;
      vectors.addTimes(word, meanings[first + w]!);
    }
    const length = lengthOf(vectors.sum());
    const scale = length === 0 ? 0 : Math.sqrt(vectors.weight) / length;
    for (let w = first; w < first + words; w++) meanings[w]! *= scale;
  }

  let [parts, entries] = [0, 0];
  const tellPart = (word: number, column: number, amount: number) => {
    texts.partWord[parts] = word;
    texts.partColumn[parts] = column;
    texts.partAmount[parts++] = amount;
  };
  const tellEntry = (column: number, amount: number) => {
    texts.column[entries] = column;
    texts.amount[entries++] = amount;
  };

  return {
    texts,
    forget() {
      texts.count = 0;
    },
    read(text) {
      const { count } = texts;
      const first = texts.firstWord[count]!;
      const { words, pairs, runs: runsSaid } = listWords(text, first);
      repeated = withCapacity(repeated, runsSaid, newInts);
      repeatedTimes = withCapacity(repeatedTimes, runsSaid, newInts);
      more = withCapacity(more, runsSaid, newFloats);
      held = withCapacity(held, 2 * runsSaid, newInts);
      const { repeats, holds } = listRepeated(first, words);
      const scale = scalesOf(first, words, repeats, pairs);
      makeRoom(words, words + 2 * pairs + holds, words + repeats + pairs);
      tellMeaning(first, words);
      parts = texts.firstPart[count]!;
      entries = texts.firstEntry[count]!;
      for (let i = 0; i < repeats; i++) {
        const run = repeated[i]!;
        const often = repeatedTimes[i]!;
        more[i] = (tf(often) / often - 1) * idf[run]! * scale.runs;
        if (run < learnt) tellEntry(run, often * more[i]!);
      }
      for (let h = 0; h < holds; h++) {
        const i = held[2 * h]!;
        const w = held[2 * h + 1]!;
        if (repeated[i]! < learnt) tellPart(first + w, repeated[i]!, times[w]! * more[i]!);
      }
      for (let w = 0; w < words; w++) {
        const column = known.column[texts.words[first + w]!]!;
        texts.runs[first + w] = times[w]! * scale.runs;
        if (column === -1 || column >= learnt) continue;
        const amount = tf(times[w]!) * idf[column]! * scale.words;
        tellEntry(column, amount);
        tellPart(first + w, column, amount);
      }
      for (let i = 0; i < pairs; i++) {
        const pair = said[3 * i]!;
        if (pair >= learnt) continue;
        const share = (tf(counts[pair]!) * idf[pair]! * scale.words) / counts[pair]!;
        tellEntry(pair, share);
        tellPart(first + said[3 * i + 1]!, pair, share / 2);
        tellPart(first + said[3 * i + 2]!, pair, share / 2);
      }
      for (let i = 0; i < pairs; i++) counts[said[3 * i]!] = 0;
      texts.firstWord[count + 1] = first + words;
      texts.firstPart[count + 1] = parts;
      texts.firstEntry[count + 1] = entries;
      texts.count += 1;
    },
  };
}

/** Words after which places start again from 1, as they are kept in 32-bit integers. */
const MOST_READ = 2 ** 30;
const FEW = 64;
const few = Float64Array.from({ length: FEW }, (_, count) => 1 + Math.log(count));
/** Term frequency of a feature with this count: 1 + ln(count). */
const tf = (count: number): number => (count < FEW ? few[count]! : 1 + Math.log(count));
