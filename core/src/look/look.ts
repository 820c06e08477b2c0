import { countLengths } from './lengths.js';
import { findPhrases, type Phrase } from './phrases.js';
import { readTerms, termsIn } from './readTerms.js';
import { countWords, type WordCount } from './wordCounts.js';

/** What a first look at the answers to a question shows. */
export interface FirstLook {
  lengths: ReturnType<typeof countLengths>;
  words: WordCount[];
  phrases: Phrase[];
}

/**
 * How long answers are, and which words and phrases they use, but for the words of the question itself and those set
 * aside.
 *
 * @param most how many words and phrases to give at the most
 */
export function lookAt(
  answers: readonly string[],
  question: string,
  setAside: readonly string[],
  most: { words: number; phrases: number },
): FirstLook {
  const terms = readTerms(answers);
  const asked = termsIn(terms, [question]);
  const aside = termsIn(terms, setAside);
  return {
    lengths: countLengths(answers),
    words: countWords(terms, new Set([...asked, ...aside]), most.words),
    phrases: findPhrases(terms, aside, asked, most.phrases),
  };
}
