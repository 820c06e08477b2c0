import { countLengths } from './lengths.js';
import { findPhrases, type Phrase } from './phrases.js';
import { termsIn, type TermTexts } from './readTerms.js';
import { countWords, type WordCount } from './wordCounts.js';

/** What a first look at the answers to a question shows. */
export interface FirstLook {
  lengths: ReturnType<typeof countLengths>;
  words: WordCount[];
  phrases: Phrase[];
}

/** What is left out of a question's words: those that it uses itself, and those set aside. */
export interface LeftOut {
  question: string;
  setAside: readonly string[];
}

/**
 * How long answers are, and which words and phrases they use, but for the words of the question itself and those set
 * aside.
 *
 * @param terms the answers as words
 * @param most how many words and phrases to give at the most
 */
export function lookAt(
  terms: TermTexts,
  { question, setAside }: LeftOut,
  most: { words: number; phrases: number },
): FirstLook {
  const asked = termsIn(terms, [question]);
  const aside = termsIn(terms, setAside);
  return {
    lengths: countLengths(terms.start),
    words: countWords(terms, new Set([...asked, ...aside]), most.words).map(
      ({ word, answers, forms }) => ({ word, answers, forms }),
    ),
    phrases: findPhrases(terms, aside, asked).phrases.slice(0, most.phrases),
  };
}
