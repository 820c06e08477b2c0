import { eld } from 'eld/medium';
import { splitWords } from '@yellow-thread/core/text';

/** A language whose score is this much below the best may still be the one. */
const TOLERANCE = 0.1;
/** Texts with fewer words are not told apart: they are taken to be in the language of most others. */
const FEWEST_WORDS = 3;
const MOST_COMPARED = 500;

/** Tells texts in the languages of an encoder from others. */
export class LanguageGate {
  private readonly languages: readonly string[];
  private readonly admitsShort: boolean;

  /**
   * @param languages ISO 639-1 codes
   * @param others texts that stand beside those that are asked about
   */
  constructor(languages: readonly string[], others: readonly string[]) {
    this.languages = languages;
    const step = Math.max(1, Math.floor(others.length / MOST_COMPARED));
    const long = others.filter((text, i) => i % step === 0 && isLong(text));
    const admitted = long.filter((text) => this.isLikely(text)).length;
    this.admitsShort = 2 * admitted >= long.length;
  }

  /** Whether a text may be in one of the languages. */
  admits(text: string): boolean {
    return isLong(text) ? this.isLikely(text) : this.admitsShort && isLatin(text);
  }

  /** @see the package `eld`, which compares the bytes of texts with those of languages */
  private isLikely(text: string): boolean {
    const scores = Object.entries(eld.detect(text).getScores());
    const best = Math.max(...scores.map(([, score]) => score));
    return scores.some(
      ([language, score]) => this.languages.includes(language) && score >= best - TOLERANCE,
    );
  }
}

const isLong = (text: string): boolean => splitWords(text).length >= FEWEST_WORDS;
/** Not in another script: signs and digits are in any language. */
const isLatin = (text: string): boolean =>
  !/[^\p{Script=Latin}\p{Script=Common}\p{Script=Inherited}]/u.test(text);
