import type { Span } from './lines.js';

/** How the interviewer's words are marked inside an answer, as the researcher named it. */
export interface AsideMarks {
  /** Pairs that enclose an aside, each as its two characters: "[]", "()", "<>", "{}". */
  brackets: readonly string[];
  /** What a line that is an aside begins with: "INT:", "Probe:". Case does not matter. */
  leading: readonly string[];
}

/**
 * Finds what somebody else than the respondent said inside an answer: probes and interviewer's words. They
 * are shown, but neither coded nor counted.
 *
 * @returns spans in order that do not overlap; a bracket that is never closed marks nothing
 */
export function findAsides(text: string, { brackets, leading }: AsideMarks): Span[] {
  const spans: Span[] = [];
  if (leading.length > 0)
    for (const { index, 0: line } of text.matchAll(/[^\n\r]+/gu)) {
      const written = line.trimStart().toLowerCase();
      if (leading.some((mark) => mark !== '' && written.startsWith(mark.toLowerCase())))
        spans.push({ start: index, end: index + line.length });
    }
  for (const [open, close] of brackets.map((pair) => [pair[0]!, pair[1]!] as const))
    for (let at = text.indexOf(open); at >= 0;) {
      const end = text.indexOf(close, at + 1);
      if (end < 0) break;
      spans.push({ start: at, end: end + 1 });
      at = text.indexOf(open, end + 1);
    }
  return joinSpans(spans);
}

/** The text with its asides blanked out: as long as before, so that every passage stays in its place. */
export function blankAsides(text: string, marks: AsideMarks): string {
  let blanked = text;
  for (const { start, end } of findAsides(text, marks))
    blanked = blanked.slice(0, start) + ' '.repeat(end - start) + blanked.slice(end);
  return blanked;
}

function joinSpans(spans: Span[]): Span[] {
  const joined: Span[] = [];
  for (const span of spans.toSorted((x, y) => x.start - y.start || x.end - y.end)) {
    const last = joined.at(-1);
    if (last && span.start <= last.end) last.end = Math.max(last.end, span.end);
    else joined.push({ ...span });
  }
  return joined;
}
