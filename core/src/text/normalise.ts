/**
 * The form of a text used for matching only: Unicode NFKC, lower case, white space collapsed, trimmed.
 * The original text is never replaced by it.
 */
export function foldForMatching(text: string): string {
  return text.normalize('NFKC').toLowerCase().replace(/\s+/gu, ' ').trim();
}

/**
 * Two answers are exact duplicates when their keys are equal: folded for matching, without final
 * punctuation.
 */
export function duplicateKey(text: string): string {
  return foldForMatching(text).replace(/[\p{P}\s]+$/u, '');
}
