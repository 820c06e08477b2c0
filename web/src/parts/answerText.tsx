import { splitAtPassages } from '@yellow-thread/core/coding';
import { findAsides, type AsideMarks } from '@yellow-thread/core/text';

/** What somebody answered, the interviewer's words in it dimmed. */
export function AnswerText({ text, asides }: { text: string; asides: AsideMarks }) {
  const marked = findAsides(text, asides);
  if (marked.length === 0) return text;
  return splitAtPassages({ start: 0, end: text.length }, marked).map((part) => (
    <span key={part.start} className={part.passages.length > 0 ? 'text-soft' : undefined}>
      {text.slice(part.start, part.end)}
    </span>
  ));
}
