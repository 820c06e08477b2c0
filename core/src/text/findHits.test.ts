import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findHits, hitMustHold, hitTester, type WordMatch } from './findHits.js';
import { duplicateHash, duplicateKey } from './normalise.js';

describe('finding words', () => {
  const text = 'Fares! The FARE for cars is unfair; farewell to (fair) fares.';
  const found = (words: string, match: WordMatch) =>
    findHits(text, words, match).map(({ start, end }) => text.slice(start, end));

  test('as written, as whole words, in any form, with wildcards', () => {
    expect(found('fare', 'plain')).toEqual(['Fare', 'FARE', 'fare', 'fare']);
    expect(found('fare', 'word')).toEqual(['FARE']);
    expect(found('fare', 'stem')).toEqual(['Fares', 'FARE', 'fares']);
    expect(found('fare*', 'wildcard')).toEqual(['Fares', 'FARE', 'farewell', 'fares']);
    expect(found('f?re', 'wildcard')).toEqual(['FARE']);
    expect(found('fare  for car', 'stem')).toEqual(['FARE for cars']);
    expect(found('(fair)', 'plain')).toEqual(['(fair)']);
    expect(found('  ', 'plain')).toEqual([]);
    expect(found('*', 'wildcard').length).toBeGreaterThan(8);
  });

  test('one word in plain text is found as it is among others and in other scripts', () => {
    const piece = fc.constantFrom(
      'Fare',
      "fare's",
      'fares',
      'fair',
      "x'fare",
      '5fare',
      'welfare',
      "o'",
      '-',
      '. ',
      ' ',
    );
    fc.assert(
      fc.property(fc.array(piece), (pieces) => {
        const plain = pieces.join('');
        // one character beyond ASCII, and every word is split and stemmed
        const hits = findHits(`${plain} ☂`, 'fares', 'stem');
        expect(findHits(plain, 'fares', 'stem')).toEqual(hits);
      }),
    );
  });

  test('whatever is typed finds itself, and a text with a hit holds what it must', () => {
    const typed = fc.oneof(
      fc.string({ minLength: 1 }),
      fc.constantFrom('a*b', '[x', 'a  b', '\\d+'),
    );
    fc.assert(
      fc.property(
        typed,
        fc.constantFrom<WordMatch>('plain', 'word', 'stem', 'wildcard'),
        fc.string(),
        (words, match, other) => {
          const inText = `${other} ${words.trim()} ${other}`;
          if (match === 'plain' && words.trim() !== '')
            expect(findHits(inText, words, match).length).toBeGreaterThan(0);
          const hits = findHits(inText, words, match);
          for (const { start, end } of hits) expect(end).toBeGreaterThan(start);
          expect(hitTester(words, match)(inText)).toBe(hits.length > 0);
          if (hits.length > 0)
            expect(inText.toLowerCase()).toContain(hitMustHold(words, match).toLowerCase());
        },
      ),
    );
  });
});

test('answers have one number exactly when they have the same words', () => {
  expect(duplicateHash(' The  boat!')).toBe(duplicateHash('the boat'));
  const text = fc.oneof(fc.string(), fc.string({ unit: 'grapheme' }));
  fc.assert(
    fc.property(text, text, (x, y) => {
      expect(Number.isSafeInteger(duplicateHash(x))).toBe(true);
      expect(duplicateHash(x) === duplicateHash(y)).toBe(duplicateKey(x) === duplicateKey(y));
    }),
  );
});

test('words of one line in any order, and one of each of some lists', () => {
  const found = (text: string, words: string, match: 'line' | 'any') =>
    findHits(text, words, match).map(({ start, end }) => text.slice(start, end));
  const text = 'Queueing at the cafés of Carrow. Cafe queues?';
  expect(found(text, 'queue café', 'line')).toEqual(['Queueing', 'cafés', 'Cafe', 'queues']);
  expect(found(text, 'queue carrow', 'line')).toEqual(['Queueing', 'Carrow']);
  expect(found(text, 'queue boat', 'line')).toEqual([]);
  expect(found(text, 'boat carrow', 'any')).toEqual(['Carrow']);
  expect(found(text, 'boat carrow + queue', 'any')).toEqual(['Queueing', 'Carrow', 'queues']);
  expect(found(text, 'carrow + boat', 'any')).toEqual([]);
  expect(found(text, '', 'any')).toEqual([]);
});
