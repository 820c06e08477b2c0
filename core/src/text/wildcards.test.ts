import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { escapePattern } from './escapePattern.js';
import { followingFinder, wildcardFinder } from './wildcards.js';

/** The same pattern as a regular expression for the whole of a text, which searches with backtracking. */
const asRegExp = (pattern: string) => {
  const body = escapePattern(pattern)
    .replaceAll('\\*', "[\\p{L}\\p{N}'’-]*")
    .replaceAll('\\?', '[\\p{L}\\p{N}]');
  return new RegExp(`^(?:${body})$`, 'iu');
};

const character = fc.constantFrom('a', 'A', 'b', 'ß', 'ſ', 's', '-', '’', ' ', '\n', '.', '𝒜', '7');
const patternCharacter = fc.constantFrom('a', 'b', 's', '*', '*', '?', '-', ' ', '.', '𝒜');
const texts = fc.array(character, { maxLength: 24 }).map((parts) => parts.join(''));
const patterns = fc
  .array(patternCharacter, { minLength: 1, maxLength: 6 })
  .map((parts) => parts.join('').trim());

test('finds what a regular expression finds, and the longest of it', () => {
  fc.assert(
    fc.property(texts, patterns, (text, pattern) => {
      fc.pre(pattern !== '');
      const whole = asRegExp(pattern);
      const isHit = (start: number, end: number) =>
        whole.test(text.slice(start, end)) &&
        !/[\p{L}\p{N}]$/u.test(text.slice(0, start)) &&
        !/^[\p{L}\p{N}]/u.test(text.slice(end));
      const expected: { start: number; end: number }[] = [];
      const boundaries = [...text].reduce((at, one) => [...at, at.at(-1)! + one.length], [0]);
      for (let start = 0; start < text.length;) {
        const end = boundaries.findLast((e) => e > start && isHit(start, e));
        if (end === undefined || !boundaries.includes(start)) {
          start++;
          continue;
        }
        expected.push({ start, end });
        start = end;
      }
      expect([...wildcardFinder(pattern)(text)]).toEqual(expected);
      expect([...followingFinder(pattern)(text)]).toEqual(expected);
    }),
    { numRuns: 1000 },
  );
});

test('many stars and a word without end take no time to speak of', () => {
  const word = 'a-'.repeat(100_000);
  expect([...wildcardFinder('*a*a*a*a*a*a*a*a*a*b')(word)]).toEqual([]);
  expect([...wildcardFinder('a*a*a*a*a*a*a*a*a*a*')(word)]).toEqual([{ start: 0, end: 200_000 }]);
});
