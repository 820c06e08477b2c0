import type { LedgerAnswer } from '@yellow-thread/contract';
import { linesOf } from '@yellow-thread/core/coding';
import type { AsideMarks, Span } from '@yellow-thread/core/text';
import { useCallback, useMemo, type Dispatch, type SetStateAction } from 'react';

/** Line number that stands for the whole answer. */
export const WHOLE = -1;

/** Where one is: an answer, a line of it, and a marked passage if any. */
export interface LedgerCell {
  answer: number;
  line: number;
  passage: Span | null;
  /** The mention that the next code takes the place of. */
  replacing?: string;
  /** When its menu was asked for. */
  menu?: number;
}

export interface LedgerPosition {
  place: LedgerCell;
  goTo: (place: LedgerCell) => void;
  /** One line up or down, across answers. */
  moveLine: (step: 1 | -1) => void;
  moveAnswer: (step: number) => void;
}

/**
 * Moves through the ledger.
 *
 * @param place where one is, kept by `goTo`
 * @param count how many answers there are
 * @param answerAt what stands in an answer, if it was fetched already
 */
export function useLedgerPosition(
  place: LedgerCell,
  goTo: Dispatch<SetStateAction<LedgerCell>>,
  count: number,
  answerAt: (index: number) => LedgerAnswer | undefined,
  asides: AsideMarks,
): LedgerPosition {
  const moveAnswer = useCallback(
    (step: number) =>
      goTo((now) => {
        const answer = Math.min(count - 1, Math.max(0, now.answer + step));
        return answer === now.answer ? now : { answer, line: 0, passage: null };
      }),
    [goTo, count],
  );
  const moveLine = useCallback(
    (step: 1 | -1) =>
      goTo((now) => {
        const line = now.line + step;
        const here = linesIn(answerAt(now.answer), asides);
        if (line >= 0 && line < here) return { ...now, line, passage: null };
        const answer = now.answer + step;
        if (answer < 0 || answer >= count) return now;
        const there = linesIn(answerAt(answer), asides);
        return { answer, line: step === 1 ? 0 : there - 1, passage: null };
      }),
    [goTo, count, answerAt, asides],
  );
  return useMemo(
    () => ({ place, goTo, moveLine, moveAnswer }),
    [place, goTo, moveLine, moveAnswer],
  );
}

/** The lines of an answer that can be coded. */
export const codedLines = ({ text, cuts }: LedgerAnswer, asides: AsideMarks) =>
  linesOf(text, asides, cuts).filter((line) => !line.isAside);

const linesIn = (answer: LedgerAnswer | undefined, asides: AsideMarks) =>
  answer ? Math.max(1, codedLines(answer, asides).length) : 1;
