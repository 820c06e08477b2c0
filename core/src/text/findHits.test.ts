import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findHits, hitMustHold, hitTester, type WordMatch } from './findHits.js';
import { likeThese } from './likeThese.js';
import { duplicateHash, duplicateKey } from './normalise.js';
import { nearDuplicates } from './nearDuplicates.js';
import { orderTextsBySimilarity, orderBySimilarity } from './orderBySimilarity.js';

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

describe('similarity', () => {
  const topics = ['late boat again', 'fare too high', 'crew was kind', 'steps are steep'];
  const texts = Array.from(
    { length: 40 },
    (_, i) => `${topics[i % 4]!} ${'really so very'.split(' ')[i % 3]!}`,
  );

  test('every text stands once, those of one topic together, always in the same order', () => {
    const order = orderBySimilarity(texts);
    expect([...order].sort((x, y) => x - y)).toEqual(texts.map((_, i) => i));
    expect(orderBySimilarity(texts)).toEqual(order);
    const changes = order.slice(1).filter((i, place) => i % 4 !== order[place]! % 4).length;
    // 4 topics could not be laid out with fewer than 3 changes
    expect(changes).toBe(3);
    expect(orderBySimilarity(['', 'x', ''])).toHaveLength(3);
  });

  test('near duplicates are told exactly, and stand one after the other', () => {
    const jaccard = (x: string, y: string) => {
      const runs = (text: string) =>
        new Set(Array.from({ length: text.length - 4 }, (_, i) => text.slice(i, i + 5)));
      const [one, other] = [runs(x), runs(y)];
      const common = [...one].filter((run) => other.has(run)).length;
      return common / (one.size + other.size - common);
    };
    const base = 'the last boat back to tye leaves far too early for anybody with a job';
    const letter = fc.constantFrom(...'abcdefghij klmnop');
    const edit = fc.array(fc.tuple(fc.nat(base.length - 1), letter), { maxLength: 4 });
    fc.assert(
      fc.property(fc.array(edit, { minLength: 2, maxLength: 6 }), (edits) => {
        const texts = edits.map((changes) => {
          const letters = [...base];
          for (const [at, to] of changes) letters[at] = to;
          // neither folded nor trimmed away
          return `x${letters.join('').replaceAll(/\s+/gu, ' ')}x`;
        });
        const firstOf = nearDuplicates(texts);
        for (const [i, x] of texts.entries()) {
          const alike = texts.some((y, j) => j !== i && jaccard(x, y) >= 0.8);
          const alone = firstOf[i] === i && !firstOf.some((first, j) => j !== i && first === i);
          expect(alone).toBe(!alike);
        }
      }),
    );
    const { order, near } = orderTextsBySimilarity([base, 'late', `${base} now`, 'dear']);
    expect(order.toSorted()).toEqual([0, 1, 2, 3]);
    expect(order[order.indexOf(0) + 1]).toBe(2);
    expect(near.map((isNear, place) => isNear && order[place])).toEqual(
      order.map((i) => i === 2 && 2),
    );
  });

  test('the most similar to some texts are of their topic', () => {
    const likeness = likeThese(texts, [0, 4]);
    for (const [i, like] of likeness.entries()) expect(like > 0.5).toBe(i % 4 === 0);
  });
});
