import { splitWords, type Span } from '../text/index.js';

/**
 * Moves one end of a passage by a word. From nothing it begins with the first word of a line, or with its last where
 * the start is moved back; it may grow into other lines of the answer, and narrowed to nothing it is no passage any
 * more.
 *
 * @param text the whole answer
 * @param line where a passage begins while there is none
 * @param passage words already marked, or null
 * @param step 1 to move the end towards the end of the text, −1 towards its beginning
 * @param moved which end of the passage moves
 */
export function extendByWord(
  text: string,
  line: Span,
  passage: Span | null,
  step: 1 | -1,
  moved: 'start' | 'end' = 'end',
): Span | null {
  const words = splitWords(text);
  if (!passage) {
    const inLine = words.filter(({ start, end }) => start >= line.start && end <= line.end);
    if (step === 1) return moved === 'end' ? asSpan(inLine[0]) : null;
    return moved === 'start' ? asSpan(inLine.at(-1)) : null;
  }
  const { start, end } = passage;
  if (moved === 'start') {
    if (step === -1)
      return { start: words.findLast((word) => word.start < start)?.start ?? start, end };
    const next = words.find((word) => word.start > start && word.end <= end);
    return next ? { start: next.start, end } : null;
  }
  if (step === 1) return { start, end: words.find((word) => word.end > end)?.end ?? end };
  const kept = words.findLast((word) => word.end < end && word.start >= start);
  return kept ? { start, end: kept.end } : null;
}

const asSpan = (word: Span | undefined): Span | null =>
  word ? { start: word.start, end: word.end } : null;
