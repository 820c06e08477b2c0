import { splitWords, type Span } from '../text/index.js';

/**
 * Grows a passage by the next word of its line, or gives its last word back; from nothing it begins with
 * the line's first word, and given back to nothing it is no passage any more.
 *
 * @param passage words already marked, or null
 * @param step 1 to grow, −1 to give back
 */
export function extendByWord(
  text: string,
  line: Span,
  passage: Span | null,
  step: 1 | -1,
): Span | null {
  const words = splitWords(text.slice(line.start, line.end)).map(({ start, end }) => ({
    start: line.start + start,
    end: line.start + end,
  }));
  if (!passage) return step === 1 ? (words[0] ?? null) : null;
  if (step === 1) {
    const next = words.find((word) => word.end > passage.end);
    return next ? { start: passage.start, end: next.end } : passage;
  }
  const kept = words.findLast((word) => word.end < passage.end && word.start >= passage.start);
  return kept ? { start: passage.start, end: kept.end } : null;
}
