import type { Span } from '../text/index.js';

/** A place where somebody split a line, or joined it with the one before. */
export interface Cut {
  /** Where the later line begins, in UTF-16 units. */
  at: number;
  joined: boolean;
}

/**
 * Lines as they are after some were split and joined by hand. A cut that no longer makes sense, since the text
 * was corrected, is passed over.
 *
 * @param lines in order, as the text has them
 */
export function cutLines<Line extends Span>(
  text: string,
  lines: readonly Line[],
  cuts: readonly Cut[],
): Line[] {
  if (cuts.length === 0) return [...lines];
  const joined = new Set(cuts.filter((cut) => cut.joined).map((cut) => cut.at));
  const split = cuts.filter((cut) => !cut.joined).map((cut) => cut.at);
  const whole: Line[] = [];
  for (const line of lines) {
    const last = whole.at(-1);
    if (last && joined.has(line.start)) whole[whole.length - 1] = { ...last, end: line.end };
    else whole.push(line);
  }
  return whole.flatMap((line) => {
    const at = split.filter((cut) => cut > line.start && cut < line.end).sort((x, y) => x - y);
    const starts = [line.start, ...at];
    return starts.flatMap((start, i) => {
      const written = text.slice(start, starts[i + 1] ?? line.end);
      const words = written.trim();
      const from = start + written.indexOf(words);
      return words === '' ? [] : [{ ...line, start: from, end: from + words.length }];
    });
  });
}
