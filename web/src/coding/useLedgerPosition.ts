import type { LedgerAnswer } from '@yellow-thread/contract';
import { linesOf } from '@yellow-thread/core/coding';
import type { AsideMarks, Span } from '@yellow-thread/core/text';
import { useCallback, useMemo, useState } from 'react';

/** Line number that stands for the whole answer. */
export const WHOLE = -1;

/** Where one is: an answer, a line of it, and a marked passage if any. */
export interface Place {
  answer: number;
  line: number;
  passage: Span | null;
}

export interface LedgerPosition {
  place: Place;
  goTo: (place: Place) => void;
  /** One line up or down, across answers. */
  moveLine: (step: 1 | -1) => void;
  moveAnswer: (step: 1 | -1) => void;
}

/** Keeps where one is in the ledger. */
export function useLedgerPosition(
  answers: readonly LedgerAnswer[],
  asides: AsideMarks,
): LedgerPosition {
  const [place, goTo] = useState<Place>({ answer: 0, line: 0, passage: null });
  const moveAnswer = useCallback(
    (step: 1 | -1) =>
      goTo((now) => {
        const answer = now.answer + step;
        return answers[answer] ? { answer, line: 0, passage: null } : now;
      }),
    [answers],
  );
  const moveLine = useCallback(
    (step: 1 | -1) =>
      goTo((now) => {
        const line = now.line + step;
        const here = linesIn(answers[now.answer], asides);
        if (line >= 0 && line < here) return { ...now, line, passage: null };
        const answer = now.answer + step;
        const there = linesIn(answers[answer], asides);
        if (!answers[answer]) return now;
        return { answer, line: step === 1 ? 0 : Math.max(0, there - 1), passage: null };
      }),
    [answers, asides],
  );
  return useMemo(() => ({ place, goTo, moveLine, moveAnswer }), [place, moveLine, moveAnswer]);
}

const linesIn = (answer: LedgerAnswer | undefined, asides: AsideMarks) =>
  answer ? Math.max(1, linesOf(answer.text, asides).filter((line) => !line.isAside).length) : 0;
