import type { Correction } from '../statistics/index.js';
import type { CountingRule } from './counting.js';
import type { BaseKind } from './crosstab.js';

/** Of whom (or what) a percentage is, in words that follow "percent of". */
export const baseWords: Record<BaseKind, string> = {
  settled: 'people with a settled answer',
  answered: 'people who answered',
  asked: 'people who were asked',
  mentions: 'all mentions',
};

/** How tests are corrected for their number, in words. */
export const correctionWords: Record<Correction | 'off', string> = {
  holm: 'Holm-corrected within a row',
  benjamini_hochberg: 'Benjamini–Hochberg-corrected within a row',
  none: 'not corrected',
  off: 'not tested',
};

/** What a column is called by itself, where it may stand within another. */
export const columnName = ({ label, under }: { label: string; under: string | null }): string =>
  under === null ? label : `${under}, ${label}`;

/** What tables count, in a few words. */
export const ruleNames: Record<CountingRule, string> = {
  decided: 'everybody, decided',
  estimated: 'everybody, estimated',
  sample: 'the random sample, read by people',
  settled: 'all settled by hand',
};

/** What must be known of a table to say what it counts. */
export interface CountedTable {
  counts: CountingRule;
  /** Whether each row counted by a rule of its own, as tables once did. */
  isMixed?: boolean;
  isFinished: boolean;
  level: number;
  sample: { drawn: number; read: number; isAllSettled: boolean };
  byModel: number;
  estimatedFrom: readonly {
    sampled: number;
    answers: number;
    trainedAt: string | null;
    known: number;
  }[];
  /** The first column is of everybody, but where each question or each coder has one. */
  columns: readonly { key: string; answered: number; settled: number; counted: number }[];
}

/**
 * What a table counts, in one or two plain sentences with its base.
 *
 * @param count writes a number as the reader's language has it
 */
export function countsSentence(table: CountedTable, count: (value: number) => string): string {
  const { counts, isFinished, sample, estimatedFrom, byModel } = table;
  const { settled, counted, answered, who } = wholeOf(table.columns, count);
  if (table.isMixed)
    return 'Frozen before tables had one rule: each code counts where its answers were settled, or all of its suggestions decided.';
  switch (counts) {
    case 'decided':
      return isFinished
        ? `Counts everybody: all ${who}. Every answer is settled.`
        : `Counts what is decided of all ${who}. Where it is not decided for somebody whether they mention a code, its row says “at least”, and of how many that is open.${byModel > 0 ? ` What the models decided (${count(byModel)}) is not counted.` : ''}`;
    case 'estimated':
      return `Estimates the share among all ${who}. ${basesOfEstimates(estimatedFrom, count)} These are estimates with ${Math.round(100 * table.level)}% intervals, not counts.`;
    case 'sample':
      return `Counts the random sample, read by people: ${count(counted)} answers of the ${count(sample.drawn)} drawn, and no others.`;
    case 'settled':
      return `Counts the ${count(settled)} answers that are settled by hand, of ${count(answered)}.${
        isFinished || settled === answered
          ? ''
          : sample.isAllSettled
            ? ' All of them were drawn at random.'
            : ' They are not a random sample: who is among them depends on which answers were read.'
      }`;
  }
}

/** What all columns count together. */
function wholeOf(columns: CountedTable['columns'], count: (value: number) => string) {
  const sum = (what: 'answered' | 'settled' | 'counted', some: typeof columns) =>
    some.reduce((all, column) => all + column[what], 0);
  const areAll = (kind: string) => columns.every(({ key }) => key.startsWith(`${kind}-`));
  const first = columns.slice(0, 1);
  const parts = areAll('question') || areAll('coder') ? columns : first;
  const answered = sum('answered', areAll('question') ? columns : first);
  return {
    settled: sum('settled', parts),
    counted: sum('counted', parts),
    answered,
    // who answers three questions is no three people
    who:
      areAll('question') && columns.length > 1
        ? `${count(answered)} answers to ${count(columns.length)} questions`
        : `${count(answered)} who answered`,
  };
}

/** What estimates rest on; that of several questions in one sentence where it is of one kind. */
function basesOfEstimates(
  from: CountedTable['estimatedFrom'],
  count: (value: number) => string,
): string {
  if (from.length < 2 || from.some(({ known, trainedAt }) => known > 0 || trainedAt === null))
    return from.map((one) => basisOf(one, count)).join(' ');
  const each = (what: 'answers' | 'sampled') => listed(from.map((one) => count(one[what])));
  return `Models read all ${each('answers')} answers, and what they say is corrected by ${each('sampled')} of them that were drawn at random and read (difference estimator).`;
}

const listed = (parts: readonly string[]) =>
  `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)!}`;

function basisOf(
  { sampled, answers, trainedAt, known }: CountedTable['estimatedFrom'][number],
  count: (value: number) => string,
): string {
  if (known > 0)
    return `${count(known)} answers are settled by hand; for the other ${count(answers)}, what the models say is corrected by ${count(sampled)} of them that were drawn at random and read.`;
  return trainedAt
    ? `Models read all ${count(answers)} answers, and what they say is corrected by ${count(sampled)} that were drawn at random and read (difference estimator).`
    : `It rests on ${count(sampled)} answers that were drawn at random and read.`;
}
