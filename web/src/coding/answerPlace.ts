import type { LedgerAnswer, Mention } from '@yellow-thread/contract';
import type { Span } from '@yellow-thread/core/text';
import type { SeenCodebook } from '../data/codebook.js';
import type { CodingChange } from '../data/coding.js';
import type { Proposal } from './proposals.js';
import type { LedgerCell, LedgerPosition } from './useLedgerPosition.js';

/** An answer of the ledger and the place in it where one is. */
export interface AnswerPlace {
  answer: LedgerAnswer;
  lines: Span[];
  byLine: Mention[][];
  place: LedgerCell;
  position: LedgerPosition;
  /** Whether what is done is done to all answers with the same words. */
  toSame: boolean;
  /** The answer before it, where that is nearly the same. */
  before: LedgerAnswer | null;
  codebook: SeenCodebook;
  /** Where answers are read one by one: what is proposed here, and pressing its digit; null elsewhere. */
  reading: Reading | null;
  onChange: (change: CodingChange) => void;
}

/** An answer that is read with what the models propose for it. */
export interface Reading {
  proposals: readonly Proposal[];
  toggle: (codeId: string) => void;
}

/** An answer's place with what follows from it: what all actions there start from. */
export interface ActiveAnswer extends AnswerPlace {
  accountId: number;
  account: { id: number; name: string } | null;
  /** The line one is at; none where that is the whole answer. */
  line: Span | undefined;
  /** What the next code will rest on; null for the whole answer. */
  target: Span | null;
  /** The last code here. */
  last: Mention | undefined;
}

/** A mention by hand, of a passage or the whole answer. */
export const mentionByHand = (
  of: Pick<Mention, 'responseId' | 'codeId' | 'coderId'>,
  passage: Span | null,
): Mention => ({
  ...of,
  id: crypto.randomUUID(),
  start: passage?.start ?? null,
  end: passage?.end ?? null,
  origin: 'hand',
  createdAt: new Date().toISOString(),
  typical: false,
});
