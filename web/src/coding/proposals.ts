import type { LedgerAnswer, Mention } from '@yellow-thread/contract';
import { lineOfEvidence } from '@yellow-thread/core/review';
import type { Span } from '@yellow-thread/core/text';

/** A code with a digit of its own where answers are read one by one. */
export interface Proposal {
  codeId: string;
  /** How likely the models find it; null where none said anything. */
  probability: number | null;
  /** The place of the line that it rests on; null for the whole answer. */
  line: number | null;
  /** Whether it is shown as the answer's: Enter accepts it. */
  isShown: boolean;
}

/** As many as there are digits. */
const MOST = 9;

/**
 * The codes that have a digit beside an answer that is read: first those that the models propose, above their lines,
 * then what else is likely, then what is given most. A digit takes a proposal away or gives another code, and they keep
 * their places. Nothing is proposed for a settled answer, nor for one that is drawn for coding by hand.
 *
 * @param lines the lines of the answer that can be coded
 * @param frequent codes that can be given, those given most first
 * @param toggled codes of which the reader pressed the digit
 */
export function proposalsOf(
  { text, settled, inSample, mentions, suggestions }: LedgerAnswer,
  lines: readonly Span[],
  frequent: readonly string[],
  toggled: ReadonlySet<string>,
): Proposal[] {
  if (settled || inSample) return [];
  const given = new Set(mentions.map(({ codeId }) => codeId));
  const likely = suggestions
    .filter(({ codeId }) => !given.has(codeId))
    .sort((x, y) => Number(y.isAbove) - Number(x.isAbove));
  const suggested = new Set(likely.map(({ codeId }) => codeId));
  const others = frequent.filter((id) => !given.has(id) && !suggested.has(id));
  return [
    ...likely.map(({ codeId, probability, evidence, line, isAbove }) => ({
      codeId,
      probability,
      // an answer that was read whole, or cut anew since, has its words to tell the line
      line: line !== null && line < lines.length ? line : lineOfEvidence(text, lines, evidence),
      isShown: isAbove !== toggled.has(codeId),
    })),
    ...others.map((codeId) => ({
      codeId,
      probability: null,
      line: null,
      isShown: toggled.has(codeId),
    })),
  ].slice(0, MOST);
}

/** A proposal as the mention that it becomes when it is accepted. */
export function mentionOf(
  { codeId, line }: Proposal,
  responseId: number,
  lines: readonly Span[],
  coderId: number,
): Mention {
  const span = line === null ? null : lines[line];
  return {
    id: crypto.randomUUID(),
    responseId,
    codeId,
    coderId,
    start: span?.start ?? null,
    end: span?.end ?? null,
    origin: 'accepted',
    createdAt: new Date().toISOString(),
    typical: false,
  };
}
