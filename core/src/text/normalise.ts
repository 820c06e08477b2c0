/** What folding leaves as it is but for the case: printable ASCII with single spaces between the words. */
const PLAIN = /^(?:[!-~]+(?: [!-~]+)*)?$/;

/**
 * The form of a text used for matching only: Unicode NFKC, lower case, white space collapsed, trimmed.
 * The original text is never replaced by it.
 */
export function foldForMatching(text: string): string {
  // most texts of most sheets, for which the general way takes ten times as long
  if (PLAIN.test(text)) return text.toLowerCase();
  return text.normalize('NFKC').toLowerCase().replace(/\s+/gu, ' ').trim();
}

const FINAL = /[\p{P}\s]/u;

/**
 * Two answers are exact duplicates when their keys are equal: folded for matching, without final
 * punctuation.
 */
export function duplicateKey(text: string): string {
  const folded = foldForMatching(text);
  // from the end, since a pattern would try every mark in the text
  let end = folded.length;
  while (end > 0) {
    const last = String.fromCodePoint(folded.codePointAt(lastPointBefore(folded, end))!);
    if (!FINAL.test(last)) break;
    end -= last.length;
  }
  return folded.slice(0, end);
}

/** Where the character that ends at `end` begins: some punctuation takes two units. */
const lastPointBefore = (text: string, end: number): number =>
  end > 1 && /[\uD800-\uDBFF][\uDC00-\uDFFF]/.test(text.slice(end - 2, end)) ? end - 2 : end - 1;

/**
 * A number by which exact duplicates are found: equal for equal keys, and for different ones only by rare
 * chance (53 bits: for 100,000 different answers one in two million).
 *
 * @returns an integer from 0 to 2^53 − 1 (the FNV-1a hash, run twice with different offsets; Fowler, Noll & Vo)
 */
export function duplicateHash(text: string): number {
  const key = duplicateKey(text);
  let low = 0x811c9dc5;
  let high = 0x2f0b4c47;
  for (let i = 0; i < key.length; i++) {
    const unit = key.charCodeAt(i);
    low = Math.imul(low ^ unit, 0x01000193);
    high = Math.imul(high ^ unit ^ (low >>> 15), 0x01000193);
  }
  return (high >>> 11) * 2 ** 32 + (low >>> 0);
}
