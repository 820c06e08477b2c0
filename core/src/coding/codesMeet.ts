import { lineOfPassage } from './segments.js';
import type { Span } from '../text/index.js';

/** Which codes are asked for: all of these, any of those, none of others. */
export interface CodesWanted {
  all: readonly string[];
  any: readonly string[];
  none: readonly string[];
}

/**
 * Whether codes meet as wanted in one line of an answer. Codes on the whole answer stand in its head row, a
 * line of its own.
 */
export function codesMeetInLine(
  mentions: readonly { codeId: string; start: number | null; end: number | null }[],
  lines: readonly Span[],
  { all, any, none }: CodesWanted,
): boolean {
  const byLine = new Map<number, Set<string>>();
  for (const { codeId, start, end } of mentions) {
    const line = lineOfPassage(lines, start === null || end === null ? null : { start, end });
    byLine.set(line, (byLine.get(line) ?? new Set()).add(codeId));
  }
  return [...byLine.values()].some(
    (codes) =>
      all.every((code) => codes.has(code)) &&
      (any.length === 0 || any.some((code) => codes.has(code))) &&
      !none.some((code) => codes.has(code)),
  );
}
