import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { foldAccents, foldForSearch } from './foldAccents.js';
import { findHits, hitMustHold, type WordMatch } from './findHits.js';

test('accents of Latin, Greek and Cyrillic letters go; marks that make another letter stay', () => {
  const folded = {
    'Crème brûlée': 'creme brulee',
    'CAFE\u0301': 'cafe',
    'Ångström, Łódź': 'angstrom, lodz',
    'STRAẞE, Straße': 'strasse, strasse',
    'Sæby, Øresund': 'saeby, oresund',
    'ﬁnance ｗｉｄｅ': 'finance wide',
    Ελλάδα: 'ελλαδα',
    ещё: 'еще',
    がまん: 'がまん',
    हिन्दी: 'हिन्दी',
    เรือ: 'เรือ',
    각하: '각하',
  };
  for (const [text, wanted] of Object.entries(folded)) expect(foldForSearch(text)).toBe(wanted);
});

test('words are found with and without their accents, and marked where they stand', () => {
  const text = 'Le CAFE\u0301 de la crèche, ﬁnancé ; un café.';
  const found = (words: string, match: WordMatch) =>
    findHits(text, words, match).map(({ start, end }) => text.slice(start, end));
  for (const words of ['cafe', 'Café', 'CAFE\u0301']) {
    expect(found(words, 'plain')).toEqual(['CAFE\u0301', 'café']);
    expect(found(words, 'word')).toEqual(['CAFE\u0301', 'café']);
  }
  expect(found('creche', 'stem')).toEqual(['crèche']);
  expect(found('cr?ch*', 'wildcard')).toEqual(['crèche']);
  expect(found('financ', 'plain')).toEqual(['ﬁnanc']);
  expect(found('i', 'plain')).toEqual(['ﬁ']);
  expect(hitMustHold('Café', 'plain')).toBe('Cafe');
});

test('every stretch leads back to whole characters that fold to it', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(), fc.nat(), (text, x, y) => {
      const { text: folded, original } = foldAccents(text);
      // a search finds whole characters, never half of a surrogate pair
      const places = [...folded].reduce((all, one) => [...all, all.at(-1)! + one.length], [0]);
      if (places.length < 2) return;
      const from = x % (places.length - 1);
      const start = places[from]!;
      const end = places[from + 1 + (y % (places.length - 1 - from))]!;
      const span = original({ start, end });
      expect(foldAccents(text.slice(span.start, span.end)).text).toContain(
        folded.slice(start, end),
      );
    }),
    { examples: [['🄀', 0, 0]] },
  );
});
