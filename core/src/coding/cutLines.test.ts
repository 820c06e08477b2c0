import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { splitLines } from '../text/index.js';
import { codesMeetInLine } from './codesMeet.js';
import { cutLines } from './cutLines.js';
import { passageIn } from './passageIn.js';

describe('lines cut by hand', () => {
  const text = 'The boat is late. And cold, and dear. Sorry!';
  const lines = splitLines(text);
  const written = (cuts: Parameters<typeof cutLines>[2]) =>
    cutLines(text, lines, cuts).map(({ start, end }) => text.slice(start, end));

  test('are split and joined where somebody did so', () => {
    expect(written([{ at: 18, joined: true }])).toEqual([
      'The boat is late. And cold, and dear.',
      'Sorry!',
    ]);
    expect(written([{ at: 28, joined: false }])).toEqual([
      'The boat is late.',
      'And cold,',
      'and dear.',
      'Sorry!',
    ]);
    // joined, and split elsewhere
    expect(
      written([
        { at: 18, joined: true },
        { at: 4, joined: false },
      ])[1],
    ).toBe('boat is late. And cold, and dear.');
  });

  test('whatever cuts there are, nothing but white space falls outside, and lines keep their order', () => {
    const cut = fc.record({ at: fc.integer({ min: 1, max: 60 }), joined: fc.boolean() });
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.array(cut), (text, cuts) => {
        const cutUp = cutLines(text, splitLines(text), cuts);
        let at = 0;
        for (const { start, end } of cutUp) {
          expect(start).toBeGreaterThanOrEqual(at);
          expect(text.slice(at, start).trim()).toBe('');
          expect(end).toBeGreaterThan(start);
          at = end;
        }
        expect(text.slice(at).trim()).toBe('');
      }),
    );
  });
});

test('a passage is found again in an answer of the same words', () => {
  const text = 'More boats. Please!';
  expect(passageIn(text, { start: 0, end: 10 }, 'more  BOATS. please')).toEqual({
    start: 0,
    end: 11,
  });
  expect(passageIn(text, { start: 12, end: 19 }, 'more boats. please')).toEqual({
    start: 12,
    end: 18,
  });
  expect(passageIn(text, { start: 0, end: 10 }, 'fewer')).toBeNull();
  // whatever an answer is made of
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(20), fc.nat(20), (text, a, b) => {
      const [start, end] = [Math.min(a, b), Math.max(a, b) + 1];
      const found = passageIn(text, { start, end }, text.toUpperCase());
      if (found) expect(found.end).toBeGreaterThan(found.start);
      expect(passageIn(text, { start, end }, text)).toEqual({ start, end });
    }),
  );
});

test('codes meet in a line only where one line has them all', () => {
  const lines = [
    { start: 0, end: 10 },
    { start: 10, end: 20 },
  ];
  const mentions = [
    { codeId: 'a', start: 1, end: 3 },
    { codeId: 'b', start: 4, end: 8 },
    { codeId: 'c', start: 12, end: 14 },
    { codeId: 'd', start: null, end: null },
  ];
  const meet = (all: string[], any: string[] = [], none: string[] = []) =>
    codesMeetInLine(mentions, lines, { all, any, none });
  expect(meet(['a', 'b'])).toBe(true);
  expect(meet(['a', 'c'])).toBe(false);
  expect(meet(['a'], ['c', 'b'])).toBe(true);
  expect(meet(['a'], [], ['b'])).toBe(false);
  expect(meet(['c'], [], ['a'])).toBe(true);
  expect(meet(['d'])).toBe(true);
  // a code of the whole answer applies to each of its lines
  expect(meet(['c', 'd'])).toBe(true);
  expect(meet([], ['a', 'b', 'c'], ['d'])).toBe(false);
});
