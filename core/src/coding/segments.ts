import { cutLines, type Cut } from './cutLines.js';
import { blankAsides, splitLines, type AsideMarks, type Span } from '../text/index.js';

/** A run of characters of a line over which the same passages lie. */
export interface Segment<P> extends Span {
  passages: P[];
}

/**
 * Parts a line at every point where a passage begins or ends, so that overlapping passages can each be
 * stitched.
 *
 * @param line the stretch to part
 * @param passages stretches of the same text; what lies outside the line is ignored
 * @returns segments in order that fill the line exactly
 */
export function splitAtPassages<P extends Span>(line: Span, passages: readonly P[]): Segment<P>[] {
  const inside = passages.filter((one) => one.start < line.end && one.end > line.start);
  const cuts = new Set([line.start, line.end]);
  for (const { start, end } of inside) {
    cuts.add(Math.max(start, line.start));
    cuts.add(Math.min(end, line.end));
  }
  const points = [...cuts].sort((x, y) => x - y);
  return points.slice(0, -1).map((start, i) => {
    const end = points[i + 1]!;
    return { start, end, passages: inside.filter((one) => one.start < end && one.end > start) };
  });
}

/** A line of an answer; `isAside` when all of it is somebody else's words, so that it is not coded. */
export interface AnswerLine extends Span {
  isAside: boolean;
}

/** The lines of an answer as it was cut by hand, those of the interviewer among them. */
export function linesOf(text: string, marks: AsideMarks, cuts: readonly Cut[] = []): AnswerLine[] {
  const said = blankAsides(text, marks);
  return cutLines(text, splitLines(text), cuts).map((line) => ({
    ...line,
    isAside: said.slice(line.start, line.end).trim() === '',
  }));
}

/** The index of the line in which a passage begins, or −1 for one on the whole answer. */
export function lineOfPassage(lines: readonly Span[], passage: Span | null): number {
  if (!passage) return -1;
  const index = lines.findIndex((line) => passage.start < line.end);
  return index === -1 ? lines.length - 1 : index;
}

/** The indices of all lines that a passage lies in; every line for one on the whole answer. */
export function linesOfPassage(lines: readonly Span[], passage: Span | null): number[] {
  const all = lines.map((_, l) => l);
  if (!passage) return all;
  const first = lineOfPassage(lines, passage);
  return all.filter((l) => l === first || (l > first && lines[l]!.start < passage.end));
}
