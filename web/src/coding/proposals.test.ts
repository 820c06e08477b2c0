import { expect, test } from '@jest/globals';
import type { LedgerAnswer } from '@yellow-thread/contract';
import { splitLines } from '@yellow-thread/core/text';
import { mentionOf, proposalsOf } from './proposals.js';

const text = 'The crew were kind. Fares are far too dear.';
const lines = splitLines(text);
const suggestion = (codeId: string, probability: number, isAbove: boolean, word = '') => ({
  codeId,
  probability,
  isAbove,
  evidence: word ? [{ word, weight: 1 }] : [],
});
const answer = {
  id: 1,
  text,
  settled: false,
  inSample: false,
  mentions: [],
  suggestions: [
    suggestion('late', 0.6, false),
    suggestion('dear', 0.5, true, 'dear'),
    suggestion('crew', 0.3, true, 'crew'),
  ],
} as unknown as LedgerAnswer;
const told = (over: Partial<LedgerAnswer> = {}, toggled: string[] = []) =>
  proposalsOf({ ...answer, ...over }, lines, ['dear', 'food', 'boat'], new Set(toggled));

test('what is proposed comes first, each at its line; digits stay where they are when they are pressed', () => {
  const ids = ['dear', 'crew', 'late', 'food', 'boat'];
  expect(told().map(({ codeId }) => codeId)).toEqual(ids);
  expect(told().map(({ isShown }) => isShown)).toEqual([true, true, false, false, false]);
  expect(told().map(({ line }) => line)).toEqual([1, 0, null, null, null]);
  const pressed = told({}, ['dear', 'food']);
  expect(pressed.map(({ codeId }) => codeId)).toEqual(ids);
  expect(pressed.map(({ isShown }) => isShown)).toEqual([false, true, false, true, false]);
  const [dear] = told();
  const { start, end } = lines[1]!;
  expect(mentionOf(dear!, 1, lines, 7)).toMatchObject({ codeId: 'dear', coderId: 7, start, end });
});

test('nothing is proposed in a sample that is coded by hand, for what is settled, or a code twice', () => {
  expect(told({ inSample: true })).toEqual([]);
  expect(told({ settled: true })).toEqual([]);
  const coded = [{ codeId: 'dear' }] as unknown as LedgerAnswer['mentions'];
  expect(told({ mentions: coded }).map(({ codeId }) => codeId)).toEqual([
    'crew',
    'late',
    'food',
    'boat',
  ]);
});
