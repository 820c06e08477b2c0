import { expect, test } from '@jest/globals';
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
