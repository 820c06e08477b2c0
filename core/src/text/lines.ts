import { isAscii } from './ascii.js';
import { segmentsOf } from './segments.js';

/** A stretch of a text: `start` inclusive, `end` exclusive, in UTF-16 units. */
export interface Span {
  start: number;
  end: number;
}

const sentences = new Intl.Segmenter('en', { granularity: 'sentence' });
const abbreviation =
  /(?:^|[\s(])(?:mr|mrs|ms|dr|st|no|nr|approx|etc|vs|e\.g|i\.e|incl|min|max|tel|a\.m|p\.m|z\.b|bzw|ca)\.\s*$/iu;
const listMarker = /^\s*(?:\(?\d{1,2}[.)]|[a-z]\))\s*$/iu;
/** A point of a list that runs on to the next point's marker: "1. Ramps 2." */
const firstPoint = /^\s*\(?(\d{1,2})[.)]/u;
const nextPoint = /\s(\(?(\d{1,2})[.)]\s*)$/u;
/** No marker of a list or abbreviation is longer, blanks around it included. */
const LONGEST_MARK = 40;

/**
 * Splits an answer into its lines: sentences by `Intl.Segmenter` (Unicode UAX #29), split further at
 * line breaks and semicolons, and before the next point of a numbered list. A list marker stays with
 * what it introduces, an abbreviation does not end a line, and a fragment of mere punctuation joins the
 * line before it.
 *
 * @returns spans in order that do not overlap and hold everything but white space
 * @example
 *   splitLines('Late again. And dear.') // [{ start: 0, end: 11 }, { start: 12, end: 21 }]
 */
export function splitLines(text: string): Span[] {
  const lines: Span[] = [];
  if (isOneLine(text)) {
    addLine(lines, text, { start: 0, end: text.length });
    return lines;
  }
  let open: Span | null = null;
  const close = () => {
    if (open) addLine(lines, text, open);
    open = null;
  };
  for (const { segment, index } of segmentsOf(sentences, text)) {
    let from = index;
    for (const part of segment.split(/(?<=[;\n\r\u2028])/u)) {
      const end = from + part.length;
      open = open ? { start: open.start, end } : { start: from, end };
      from = end;
      // what ends a line is short: a long one is not read again with each piece that joins it
      const soFar = text.slice(Math.max(open.start, end - LONGEST_MARK), end);
      const isWhole = end - open.start <= LONGEST_MARK;
      const [, number] = firstPoint.exec(text.slice(open.start, open.start + LONGEST_MARK)) ?? [];
      const [marker = '', next] = nextPoint.exec(soFar)?.slice(1) ?? [];
      if (marker && number && Number(next) === Number(number) + 1) {
        addLine(lines, text, { start: open.start, end: end - marker.length });
        open = { start: end - marker.length, end };
      } else if (/[\n\r\u2028]$/u.test(part)) close();
      else if (!abbreviation.test(soFar) && !(isWhole && listMarker.test(soFar))) close();
    }
  }
  close();
  return lines;
}

/** Whether there is nothing at which a text could be split, as in most short answers: told a hundred times as fast. */
function isOneLine(text: string): boolean {
  if (!isAscii(text)) return false;
  let end = text.length;
  while (end > 0 && ' .?!;'.includes(text[end - 1]!)) end--;
  return !/[.?!;\n\r]/.test(text.slice(0, end));
}

function addLine(lines: Span[], text: string, { start, end }: Span): void {
  const raw = text.slice(start, end);
  const trimmed = raw.trim();
  if (trimmed === '') return;
  const from = start + raw.indexOf(trimmed);
  const line = { start: from, end: from + trimmed.length };
  const last = lines.at(-1);
  const merelyMarks = !/[\p{L}\p{N}\p{Extended_Pictographic}]/u.test(trimmed);
  if (merelyMarks && last && !/[\n\r\u2028]/u.test(text.slice(last.end, line.start)))
    last.end = line.end;
  else lines.push(line);
}
