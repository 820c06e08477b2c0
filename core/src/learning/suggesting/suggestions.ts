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
}

/**
 * All suggestions of a code. There are hundreds of thousands: as an object each, with one for each word, they would take
 * longer to be made, cleared away and passed between threads than to be found.
 */
export interface Suggestions {
  /** By suggestion, in ascending order of answers. */
  answers: Int32Array;
  probabilities: Float64Array;
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
  }));

/** Collects the suggestions of a code. */
export function suggestionBuilder(forms: readonly string[]): {
  /**
   * @param text the one of an answer that its probability is from
   * @param contributions of that text's words to the score
   * @param slope from scores to log-odds
   */
  add: (
    one: Pick<Suggestion, 'answer' | 'probability'>,
    texts: TokenizedTexts,
    text: number,
    contributions: Float64Array,
    slope: number,
  ) => void;
  suggestions: () => Suggestions;
} {
  let count = 0;
  let answers = newInts(0);
  let probabilities = newFloats(0);
  let firstWord = newInts(1);
  let words = newInts(0);
  let weights = newFloats(0);
  return {
    add({ answer, probability }, texts, text, contributions, slope) {
      const from = firstWord[count]!;
      answers = withCapacity(answers, count + 1, newInts);
      probabilities = withCapacity(probabilities, count + 1, newFloats);
      firstWord = withCapacity(firstWord, count + 2, newInts);
      words = withCapacity(words, from + MOST_EVIDENCE, newInts);
      weights = withCapacity(weights, from + MOST_EVIDENCE, newFloats);
      answers[count] = answer;
      probabilities[count] = probability;
      const first = texts.firstWord[text]!;
      const different = texts.firstWord[text + 1]! - first;
      let end = from;
      for (let w = 0; w < different; w++) {
        const weight = slope * contributions[w]!;
        const isFull = end === from + MOST_EVIDENCE;
        if (weight <= (isFull ? weights[end - 1]! : 0)) continue;
        let place = isFull ? end - 1 : end++;
        for (; place > from && weights[place - 1]! < weight; place--) {
          weights[place] = weights[place - 1]!;
          words[place] = words[place - 1]!;
        }
        weights[place] = weight;
        words[place] = texts.words[first + w]!;
      }
      firstWord[++count] = end;
    },
    suggestions: () => ({
      answers: answers.slice(0, count),
      probabilities: probabilities.slice(0, count),
      firstWord: firstWord.slice(0, count + 1),
      words: words.slice(0, firstWord[count]),
      weights: weights.slice(0, firstWord[count]),
      forms,
    }),
  };
}
