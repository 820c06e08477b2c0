import { escapePattern, type Span } from '../text/index.js';

/**
 * Where a passage of one answer stands in another one of the same words, which may differ in case, spaces and
 * final punctuation.
 *
 * @returns null when it is not to be found: then the code goes to the whole answer
 */
export function passageIn(text: string, passage: Span, other: string): Span | null {
  const words = text.slice(passage.start, passage.end);
  if (other.slice(passage.start, passage.end) === words) return { ...passage };
  const pattern = escapePattern(words.trim())
    // the end of an answer may be written without its full stop
    .replace(/(?:\\?\p{P})+$/u, (marks) => (passage.end === text.trimEnd().length ? '' : marks));
  const found = pattern === '' ? null : new RegExp(pattern, 'iu').exec(other);
  return found ? { start: found.index, end: found.index + found[0].length } : null;
}
