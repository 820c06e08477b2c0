import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hitTester } from '../text/index.js';
import { countLengths } from './lengths.js';
import { lookAt } from './look.js';
import { readTerms } from './readTerms.js';

const look = (answers: string[], question = '', aside: string[] = []) =>
  lookAt(readTerms(answers), { question, setAside: aside }, { words: 20, phrases: 20 });

test('counts answers, not uses, all forms of a word as one, without the question’s own words and those set aside', () => {
  const answers = [
    'Boat boats boat',
    'the BOAT was late',
    'late, late crossing',
    'a 7 o’clock boat',
  ];
  expect(look(answers, 'Your crossings or crossing?').words).toEqual([
    {
      word: 'boat',
      answers: 3,
      forms: [
        { form: 'boat', answers: 3 },
        { form: 'boats', answers: 1 },
      ],
    },
    { word: 'late', answers: 2, forms: [{ form: 'late', answers: 2 }] },
    { word: "o'clock", answers: 1, forms: [{ form: "o'clock", answers: 1 }] },
  ]);
  expect(look(answers, '', ['boats']).words.map(({ word }) => word)).toEqual([
    'late',
    'crossing',
    "o'clock",
  ]);
});

test('phrases are words that meet more than by chance, the longest that people say; not those of the question', () => {
  const said = [
    'the early morning boat',
    'an early morning boat leaves',
    'early morning boats please',
  ];
  const others = Array.from({ length: 40 }, (_, i) => `word${i} boat and word${i + 1} early`);
  const kept = [...said, ...said, ...others];
  expect(look(kept).phrases).toEqual([{ phrase: 'early morning boat', answers: 6 }]);
  expect(look(kept, 'What of the early morning boat?').phrases).toEqual([]);
  expect(look(kept, '', ['morning']).phrases).toEqual([]);
  // two people are no phrase, and “boat and” ends with a word that says nothing
  expect(look([...said.slice(0, 2), ...others]).phrases).toEqual([]);
});

test('lengths: a bin reaches to the next one, marks alone count as one word', () => {
  const words = (count: number) => 'boat '.repeat(count);
  const { start } = readTerms([
    '!',
    words(1),
    words(5),
    words(6),
    words(50),
    words(51),
    words(400),
  ]);
  const counted = countLengths(start);
  expect(counted.filter((bin) => bin.answers > 0)).toEqual([
    { from: 1, answers: 3 },
    { from: 6, answers: 1 },
    { from: 31, answers: 1 },
    { from: 51, answers: 2 },
  ]);
});

test('looking for what was counted finds the answers that were counted, whatever stands beside it', () => {
  const piece = fc.constantFrom(
    'boat',
    'Boat’s',
    "o'clock",
    'boats',
    'café',
    'CAFE',
    'cafe\u0301s',
    '-',
    '’',
    "'",
    ' ',
    '\n',
    'x2',
    'เรือแพงมาก',
    '船が遅い',
    'naïve-boat',
    'ﬁn',
    'Ünï',
    '_',
    '.',
  );
  const answer = fc.array(piece, { maxLength: 6 }).map((pieces) => pieces.join(''));
  fc.assert(
    fc.property(fc.array(answer, { maxLength: 5 }), (answers) => {
      const { words, phrases } = look([...answers, ...answers, ...answers]);
      const found = (wanted: string, match: 'stem' | 'word') =>
        3 * answers.filter(hitTester(wanted, match)).length;
      for (const { word, answers: counted, forms } of words) {
        expect([word, found(word, 'stem')]).toEqual([word, counted]);
        for (const { form, answers: using } of forms)
          expect([form, found(form, 'word')]).toEqual([form, using]);
      }
      for (const { phrase, answers: counted } of phrases)
        expect([phrase, found(phrase, 'stem')]).toEqual([phrase, counted]);
    }),
  );
});
