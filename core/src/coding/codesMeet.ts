import { linesOfPassage } from './segments.js';
import type { Span } from '../text/index.js';

/** Which codes are asked for: all of these, any of those, none of others. */
export interface CodesWanted {
  all: readonly string[];
  any: readonly string[];
  none: readonly string[];
}

/**
 * Whether codes meet as wanted in one line of an answer.
 */
export function codesMeetInLine(
  mentions: readonly { codeId: string; start: number | null; end: number | null }[],
  lines: readonly Span[],
  { all, any, none }: CodesWanted,
): boolean {
  const byLine = lines.map(() => new Set<string>());
  for (const { codeId, start, end } of mentions) {
    const passage = start === null || end === null ? null : { start, end };
    // a code of the whole answer applies to each of its lines
    for (const l of linesOfPassage(lines, passage)) byLine[l]!.add(codeId);
  }
  return byLine.some(
    (codes) =>
      all.every((code) => codes.has(code)) &&
      (any.length === 0 || any.some((code) => codes.has(code))) &&
      !none.some((code) => codes.has(code)),
  );
}
