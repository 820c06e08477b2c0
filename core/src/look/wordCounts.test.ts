import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hitTester } from '../text/index.js';
import { countLengths } from './lengths.js';
import { countWords } from './wordCounts.js';

test('counts answers, not uses, without the question’s own words and those set aside', () => {
  const answers = [
    'Boat boat boat',
    'the BOAT was late',
    'late, late crossing',
    'a 7 o’clock boat',
  ];
  expect(countWords(answers, 'Your crossings or crossing?', [], 10)).toEqual([
    { word: 'boat', answers: 3 },
    { word: 'late', answers: 2 },
    { word: "o'clock", answers: 1 },
  ]);
  expect(countWords(answers, '', ['boat'], 1)).toEqual([{ word: 'late', answers: 2 }]);
});

test('lengths: a bin reaches to the next one, marks alone count as one word', () => {
  const words = (count: number) => 'boat '.repeat(count);
  const counted = countLengths([
    '!',
    words(1),
    words(5),
    words(6),
    words(50),
    words(51),
    words(400),
  ]);
  expect(counted.filter((bin) => bin.answers > 0)).toEqual([
    { from: 1, answers: 3 },
    { from: 6, answers: 1 },
    { from: 31, answers: 1 },
    { from: 51, answers: 2 },
  ]);
});

test('looking for a counted word as a whole word finds the answers that were counted, whatever stands beside it', () => {
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
      for (const { word, answers: counted } of countWords(answers, '', [], 20)) {
        const isIn = hitTester(word, 'word');
        expect([word, answers.filter(isIn).length]).toEqual([word, counted]);
      }
    }),
  );
});
