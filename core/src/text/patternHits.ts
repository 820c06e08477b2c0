import type { Span } from './lines.js';

/** A pattern of which a hit may neither begin behind a letter or digit nor end before one. */
export const outsideWord = (pattern: string): string =>
  `(?<![\\p{L}\\p{N}])(?:${pattern})(?![\\p{L}\\p{N}])`;

/** Where a pattern with the flag `g` is found, in UTF-16 units; nothing is no hit. */
export function* patternHits(text: string, pattern: RegExp): Generator<Span> {
  for (const { index, 0: hit } of text.matchAll(pattern))
    if (hit !== '') yield { start: index, end: index + hit.length };
}
