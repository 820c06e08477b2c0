import type { LedgerAnswer, Mention } from '@yellow-thread/contract';
import { lineOfEvidence } from '@yellow-thread/core/review';
import type { Span } from '@yellow-thread/core/text';

/** A code that the models propose for an answer, at the line that it rests on. */
export interface Proposal {
  codeId: string;
  probability: number;
  /** The place of the line; null for the whole answer. */
  line: number | null;
}

/** More than these would not be read one by one. */
const MOST = 9;

/**
 * What is proposed for an answer where answers are read one by one: the codes above their lines that it does not have
 * yet. Nothing is proposed for a settled answer, nor for one that is drawn for coding by hand.
 *
 * @param lines the lines of the answer that can be coded
 * @param taken codes that the reader took away
 */
export function proposalsOf(
  { text, settled, inSample, mentions, suggestions }: LedgerAnswer,
  lines: readonly Span[],
  taken: ReadonlySet<string>,
): Proposal[] {
  if (settled || inSample) return [];
  const given = new Set(mentions.map(({ codeId }) => codeId));
  return suggestions
    .filter(({ codeId, isAbove }) => isAbove && !given.has(codeId) && !taken.has(codeId))
    .slice(0, MOST)
    .map(({ codeId, probability, evidence }) => ({
      codeId,
      probability,
      line: lineOfEvidence(text, lines, evidence),
    }));
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
