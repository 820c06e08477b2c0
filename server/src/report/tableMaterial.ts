import type { CountingRule, Report } from '@yellow-thread/contract';
import {
  countOfBoth,
  emptyBitset,
  intersect,
  isEmpty,
  subtract,
  unite,
  type Bitset,
} from '@yellow-thread/core/groups';
import { acrossQuestions, type CrosstabRow } from '@yellow-thread/core/report';
import type { QuestionMaterial } from '../groups/index.js';

/** What the figures of some columns are counted from: one question's coding, or that of all together. */
export interface TableMaterial {
  asked: Bitset;
  answered: Bitset;
  /** Settled by hand. */
  settled: Bitset;
  /** Settled by hand, or every code decided. */
  decided: Bitset;
  countedBy: (rule: CountingRule) => Bitset;
  rowOf: (codeId: string, rule: CountingRule) => CrosstabRow;
  origins: (rule: CountingRule) => Report['origins'];
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
  decided: material.decided,
  countedBy: material.countedBy,
  rowOf: material.rowOf,
  origins: (rule) => material.originsWithin(within, material.countedBy(rule)),
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
  const answered = any((one) => one.answered);
  /** Those who are in a set with every answer that they gave. */
  const all = (set: (one: TableMaterial) => Bitset) =>
    subtract(
      answered,
      any((one) => subtract(one.answered, set(one))),
    );
  const known = new Map<string, CrosstabRow>();
  return {
    asked: any((one) => one.asked),
    answered,
    settled: all((one) => one.settled),
    decided: all((one) => one.decided),
    countedBy: (rule) => (rule === 'decided' ? answered : all((one) => one.countedBy(rule))),
    rowOf: (codeId, rule) => {
      const key = `${rule} ${codeId}`;
      const row =
        known.get(key) ??
        acrossQuestions(
          codeId,
          ones.map((one) => ({ row: one.rowOf(codeId, rule), answered: one.answered })),
        );
      known.set(key, row);
      return row;
    },
    origins: (rule) => sumOrigins(ones.map((one) => one.origins(rule))),
    parts,
  };
}

/** A set restricted to a group; everybody where there is none. */
export const restricted = (set: Bitset, within: Bitset | null): Bitset =>
  within ? intersect(set, within) : set;

/** Whether every answer of some people is settled. */
export const isFinished = ({ answered, decided }: TableMaterial, members: Bitset): boolean =>
  countOfBoth(answered, members) > 0 && isEmpty(intersect(subtract(answered, decided), members));

/** Where the mentions of several materials come from. */
export function sumOrigins(all: readonly Report['origins'][]): Report['origins'] {
  const sum = (origin: keyof Report['origins']) =>
    all.reduce((total, origins) => total + origins[origin], 0);
  return {
    hand: sum('hand'),
    accepted: sum('accepted'),
    bulk: sum('bulk'),
    import: sum('import'),
    words: sum('words'),
    notCounted: sum('notCounted'),
  };
}
