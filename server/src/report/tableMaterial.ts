import type { Report } from '@yellow-thread/contract';
import { emptyBitset, intersect, subtract, unite, type Bitset } from '@yellow-thread/core/groups';
import { acrossQuestions, type CrosstabRow } from '@yellow-thread/core/report';
import type { QuestionMaterial } from '../groups/index.js';

/** What the figures of some columns are counted from: one question's coding, or that of all together. */
export interface TableMaterial {
  asked: Bitset;
  answered: Bitset;
  settled: Bitset;
  rowOf: (codeId: string) => CrosstabRow;
  isDecidedForAll: (codeId: string) => boolean;
  origins: Report['origins'];
  /** The questions that it is counted from. */
  parts: readonly QuestionMaterial[];
}

/** @param within the group whose mentions alone are told where they come from; null for everybody */
export const ofOneQuestion = (
  material: QuestionMaterial,
  within: Bitset | null,
): TableMaterial => ({
  asked: material.asked,
  answered: material.answered,
  settled: material.settled,
  rowOf: (codeId) => material.codes.get(codeId) ?? material.emptyRow(codeId),
  isDecidedForAll: (codeId) => material.decidedForAll.has(codeId),
  origins: material.originsWithin(within),
  parts: [material],
});

/** People who mention a code in any question; the base answered at least one. */
export function ofAllQuestions(
  parts: readonly QuestionMaterial[],
  within: Bitset | null,
): TableMaterial {
  const ones = parts.map((part) => ofOneQuestion(part, within));
  const none = emptyBitset(32 * (parts[0]?.asked.length ?? 0));
  const any = (set: (one: TableMaterial) => Bitset) => ones.map(set).reduce(unite, none);
  const known = new Map<string, CrosstabRow>();
  const answered = any((one) => one.answered);
  const open = any((one) => subtract(one.answered, one.settled));
  return {
    asked: any((one) => one.asked),
    answered,
    // settled in every question that they answered
    settled: subtract(answered, open),
    rowOf: (codeId) => {
      const row =
        known.get(codeId) ??
        acrossQuestions(
          codeId,
          ones.map((one) => ({ row: one.rowOf(codeId), answered: one.answered })),
        );
      known.set(codeId, row);
      return row;
    },
    isDecidedForAll: (codeId) => ones.every((one) => one.isDecidedForAll(codeId)),
    origins: sumOrigins(ones),
    parts,
  };
}

/** A set restricted to a group; everybody where there is none. */
export const restricted = (set: Bitset, within: Bitset | null): Bitset =>
  within ? intersect(set, within) : set;

/** Where the mentions of several materials come from. */
export function sumOrigins(
  materials: readonly Pick<TableMaterial, 'origins'>[],
): Report['origins'] {
  const sum = (origin: keyof Report['origins']) =>
    materials.reduce((all, { origins }) => all + origins[origin], 0);
  return {
    ...{ hand: sum('hand'), accepted: sum('accepted'), bulk: sum('bulk') },
    ...{ import: sum('import'), words: sum('words'), waiting: sum('waiting') },
  };
}
