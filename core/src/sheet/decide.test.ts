import { expect, test } from '@jest/globals';
import { countsAsNoAnswer, decideNoAnswer, withRole } from './decide.js';
import type { ColumnSetting } from './settings.js';

const questions = [
  { wording: 'Why?', proposed: [{ text: 'nothing' }, { text: 'n/a' }] },
  { wording: 'What else?', proposed: [{ text: 'Nothing.' }] },
];
const start = { noAnswers: ['n/a'], answersDespite: [] };

test('what is decided for one question leaves the others as they were', () => {
  const listed = decideNoAnswer({
    settings: start,
    questions,
    question: 'Why?',
    text: 'nothing',
    isAnswer: false,
  });
  expect(listed.noAnswers).toEqual(['n/a', 'nothing']);
  const counts = (settings: typeof listed) =>
    ['Why?', 'What else?'].map((question) => countsAsNoAnswer(settings, question, 'nothing'));
  expect(counts(listed)).toEqual([true, false]);
  const both = decideNoAnswer({
    settings: listed,
    questions,
    question: 'What else?',
    text: 'Nothing.',
    isAnswer: false,
  });
  expect([counts(both), both.noAnswers]).toEqual([[true, true], listed.noAnswers]);
  expect(
    counts(
      decideNoAnswer({
        settings: both,
        questions,
        question: 'Why?',
        text: 'nothing',
        isAnswer: true,
      }),
    ),
  ).toEqual([false, true]);
});

test('an answer after all is one until that is undone', () => {
  const despite = decideNoAnswer({
    settings: start,
    questions,
    question: 'Why?',
    text: 'n/a',
    isAnswer: true,
  });
  expect(countsAsNoAnswer(despite, 'Why?', 'N/A.')).toBe(false);
  expect(countsAsNoAnswer(despite, 'What else?', 'n/a')).toBe(true);
  expect(
    decideNoAnswer({
      settings: despite,
      questions,
      question: 'Why?',
      text: 'n/a',
      isAnswer: false,
    }),
  ).toEqual(start);
});

test('a column keeps its variable’s name within background, and begins again beyond', () => {
  const home: ColumnSetting = {
    role: 'category',
    name: 'Home',
    of: '',
    separator: '',
    writing: '',
  };
  const settings = {
    columns: [home, { ...home, role: 'question' as const, name: 'Why?' }],
  };
  expect(withRole({ column: home, role: 'number', head: 'home ', settings })).toEqual({
    ...home,
    role: 'number',
  });
  expect(withRole({ column: home, role: 'choices', head: 'home ', settings }).separator).toBe(';');
  expect(withRole({ column: home, role: 'question', head: 'home ', settings })).toMatchObject({
    name: 'home ',
  });
  expect(withRole({ column: home, role: 'codes', head: 'home ', settings })).toMatchObject({
    name: 'Why?',
  });
});
