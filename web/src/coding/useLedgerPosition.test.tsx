import { expect, test } from '@jest/globals';
import type { LedgerAnswer } from '@yellow-thread/contract';
import { act, renderHook } from '@testing-library/react';
import { useState } from 'react';
import { useLedgerPosition, type LedgerCell } from './useLedgerPosition.js';

const answers = ['One line.', 'A first line. And a second one.', 'The last.'].map(
  (text) => ({ text, cuts: [] }) as unknown as LedgerAnswer,
);
const asides = { brackets: [], leading: [] };

const openAt = (answer: number, line = 0) =>
  renderHook(() => {
    const [place, setPlace] = useState<LedgerCell>({ answer, line, passage: null });
    return useLedgerPosition(place, setPlace, answers.length, (index) => answers[index], asides);
  }).result;

test('lines are gone through one by one, across answers, in both directions', () => {
  const position = openAt(0);
  const passed = [];
  for (let step = 0; step < 5; step++) {
    const { answer, line } = position.current.place;
    passed.push([answer, line]);
    act(() => position.current.moveLine(1));
  }
  expect(passed).toEqual([
    [0, 0],
    [1, 0],
    [1, 1],
    [2, 0],
    [2, 0],
  ]);
  act(() => position.current.moveLine(-1));
  expect(position.current.place).toMatchObject({ answer: 1, line: 1 });
});

test('a step between answers ends at the first and the last, and begins at the first line', () => {
  const position = openAt(1, 1);
  act(() => position.current.moveAnswer(-5));
  expect(position.current.place).toEqual({ answer: 0, line: 0, passage: null });
  act(() => position.current.moveAnswer(100));
  expect(position.current.place).toEqual({ answer: 2, line: 0, passage: null });
});
