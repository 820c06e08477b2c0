import { lengthOf, newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { Vocabulary } from './vocabulary.js';

/**
 * Texts as what their words bring: the same numbers as in their vectors, but not one by one. A word's runs of
 * characters and its vector are the same in every text; they come as a whole, so many times, and only what is different
 * where a run stands several times in a text is told by column. It takes a quarter of the numbers.
 */
export interface TokenizedTexts {
  /** How many there are. */
  count: number;
  /**
   * The different words of text t stand at places firstWord[t] … firstWord[t + 1] − 1. Of each, how many times Σ idf of
   * its runs, and its vector, are brought in.
   */
  firstWord: Int32Array;
  words: Int32Array;
  runs: Float64Array;
  meanings: Float64Array;
  /**
   * What words bring by column besides, `partWord` being their places: themselves, a half of each pair, and, of runs
   * that stand several times in the text, what these are more than the sum of all.
   */
  firstPart: Int32Array;
  partWord: Int32Array;
  partColumn: Int32Array;
  partAmount: Float64Array;
  /** The parts of each text summed by column. */
  firstEntry: Int32Array;
  column: Int32Array;
  amount: Float64Array;
}

/** Reads texts as their words. */
export interface WordReader {
  /** Those that were read since the last were forgotten. Lists are other ones when they have grown. */
  readonly texts: Readonly<TokenizedTexts>;
  /** Reads one more; columns that nothing can be learnt of are left out. */
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
  /** How often each pair is said in the text that is read. */
  const counts = new Int32Array(idf.length);
  /**
   * By run, which word last had it, as a place among all words read so far; of a run that stands several times in the
   * text that is read −1 less its place among these.
   */
  const lastHad = new Int32Array(idf.length);
  /** The place among all words read of the first one of the text. */
  let firstRead = 1;
  /** By word: its place among those of the text that is read, and one more; 0 for others. */
  let placeOf = newInts(0);
  let times = newInts(0);
  /** Runs that stand several times: which, how often, and what each time brings more than its idf, scaled. */
  let repeated = newInts(0);
  let repeatedTimes = newInts(0);
  let more = newFloats(0);
  /** Each time that a word has one of them: its place there, and the word's. */
  let held = newInts(0);
  /** Pairs as they are said: the column, and the places of both words. */
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

  /** Lists the different words of a text, and counts them and their pairs. */
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

  /** Lists the runs that stand several times, and which words have them. */
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
      // a pair comes up as often as it is said
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

  /** How many times each word's vector is brought in. */
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
