import type { WordPart } from './evidence.js';
import { newFloats, newInts, withCapacity } from '../solver/vectors.js';
import type { TokenizedTexts } from '../features/tokenizedTexts.js';

/** An answer that a code is suggested for. */
export interface Suggestion {
  /** Position in `answers`. */
  answer: number;
  probability: number;
  /** The words that spoke most for it, strongest first, as contributions to the log-odds. */
  evidence: WordPart[];
  /** What all of its words add to the log-odds together. */
  fromWords: number;
  /** What the meaning of the line as a whole adds to them; null where it was not read for meaning. */
  fromMeaning: number | null;
  /** The place of the line that is the likeliest; null where the answer was read whole. */
  line: number | null;
}

/**
 * All suggestions of a code. There are hundreds of thousands: as an object each, with one for each word, they would take
 * longer to be made, cleared away and passed between threads than to be found.
 */
export interface Suggestions {
  /** By suggestion, in ascending order of answers. */
  answers: Int32Array;
  probabilities: Float64Array;
  fromWords: Float64Array;
  /** NaN for null. */
  fromMeaning: Float64Array;
  /** −1 for null. */
  lines: Int32Array;
  /** The words of suggestion s stand at places firstWord[s] … firstWord[s + 1] − 1. */
  firstWord: Int32Array;
  words: Int32Array;
  weights: Float64Array;
  /** Forms of words by their numbers. */
  forms: readonly string[];
}

const MOST_EVIDENCE = 6;

/** Suggestions as objects. */
export const listSuggestions = ({
  answers,
  probabilities,
  fromWords,
  fromMeaning,
  lines,
  firstWord,
  words,
  weights,
  forms,
}: Suggestions): Suggestion[] =>
  Array.from(answers, (answer, s) => ({
    answer,
    probability: probabilities[s]!,
    evidence: Array.from(words.subarray(firstWord[s], firstWord[s + 1]), (word, k) => ({
      word: forms[word]!,
      weight: weights[firstWord[s]! + k]!,
    })),
    fromWords: fromWords[s]!,
    fromMeaning: Number.isNaN(fromMeaning[s]!) ? null : fromMeaning[s]!,
    line: lines[s] === -1 ? null : lines[s]!,
  }));

/** What the score of a suggestion is made of. */
interface SuggestionSource {
  texts: TokenizedTexts;
  text: number;
  /** By word of the text. */
  contributions: Float64Array;
  meaning: number | null;
  slope: number;
}

function sumOfWords({ texts: { firstWord }, text, contributions }: SuggestionSource): number {
  let sum = 0;
  for (let w = firstWord[text + 1]! - firstWord[text]! - 1; w >= 0; w--) sum += contributions[w]!;
  return sum;
}

/** Collects the suggestions of a code. */
export class SuggestionBuilder {
  private readonly forms: readonly string[];
  private count = 0;
  private answers = newInts(0);
  private probabilities = newFloats(0);
  private fromWords = newFloats(0);
  private fromMeaning = newFloats(0);
  private lines = newInts(0);
  private firstWord = newInts(1);
  private words = newInts(0);
  private weights = newFloats(0);

  /** @param forms of words by their ids */
  constructor(forms: readonly string[]) {
    this.forms = forms;
  }

  /**
   * @param from the text of the answer that its probability is from, the contributions of its words and of its meaning
   *   to the score, and the slope from scores to log-odds
   */
  add(
    { answer, probability, line }: Pick<Suggestion, 'answer' | 'probability' | 'line'>,
    from: SuggestionSource,
  ): void {
    const { count } = this;
    this.fromWords = withCapacity(this.fromWords, count + 1, newFloats);
    this.fromMeaning = withCapacity(this.fromMeaning, count + 1, newFloats);
    this.lines = withCapacity(this.lines, count + 1, newInts);
    this.answers = withCapacity(this.answers, count + 1, newInts);
    this.probabilities = withCapacity(this.probabilities, count + 1, newFloats);
    this.firstWord = withCapacity(this.firstWord, count + 2, newInts);
    this.answers[count] = answer;
    this.probabilities[count] = probability;
    this.lines[count] = line ?? -1;
    this.fromWords[count] = from.slope * sumOfWords(from);
    this.fromMeaning[count] = from.meaning === null ? NaN : from.slope * from.meaning;
    this.firstWord[count + 1] = this.addStrongest(this.firstWord[count]!, from);
    this.count += 1;
  }

  suggestions(): Suggestions {
    const { count, answers, probabilities, fromWords, fromMeaning, lines } = this;
    const { firstWord, words, weights, forms } = this;
    return {
      answers: answers.slice(0, count),
      probabilities: probabilities.slice(0, count),
      fromWords: fromWords.slice(0, count),
      fromMeaning: fromMeaning.slice(0, count),
      lines: lines.slice(0, count),
      firstWord: firstWord.slice(0, count + 1),
      words: words.slice(0, firstWord[count]),
      weights: weights.slice(0, firstWord[count]),
      forms,
    };
  }

  /** Adds the words that speak most for it, strongest first. @returns where the next may stand */
  private addStrongest(
    start: number,
    { texts, text, contributions, slope }: SuggestionSource,
  ): number {
    this.words = withCapacity(this.words, start + MOST_EVIDENCE, newInts);
    this.weights = withCapacity(this.weights, start + MOST_EVIDENCE, newFloats);
    const { words, weights } = this;
    const first = texts.firstWord[text]!;
    const distinct = texts.firstWord[text + 1]! - first;
    let end = start;
    for (let w = 0; w < distinct; w++) {
      const weight = slope * contributions[w]!;
      const isFull = end === start + MOST_EVIDENCE;
      if (weight <= (isFull ? weights[end - 1]! : 0)) continue;
      let at = isFull ? end - 1 : end++;
      for (; at > start && weights[at - 1]! < weight; at--) {
        weights[at] = weights[at - 1]!;
        words[at] = words[at - 1]!;
      }
      weights[at] = weight;
      words[at] = texts.words[first + w]!;
    }
    return end;
  }
}
