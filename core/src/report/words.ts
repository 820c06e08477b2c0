import type { Correction } from '../statistics/index.js';
import type { CountingRule } from './counting.js';
import type { BaseKind } from './crosstab.js';
import { wordsTexts } from '../wording/report.js';

/** Of whom (or what) a percentage is, in words that follow "percent of". */
export const baseInWords: Record<BaseKind, string> = {
  settled: wordsTexts.peopleSettledAnswer,
  answered: wordsTexts.peopleWhoAnswered,
  asked: wordsTexts.peopleWhoAsked,
  mentions: wordsTexts.allMentions,
};

/** How tests are corrected for their number, in words. */
export const correctionWords: Record<Correction | 'off', string> = {
  holm: wordsTexts.holmCorrectedWithinRow,
  benjamini_hochberg: wordsTexts.benjaminiHochbergCorrectedWithin,
  none: wordsTexts.corrected,
  off: wordsTexts.tested,
};

/** What a column is called by itself, where it may stand within another. */
export const columnName = ({ label, under }: { label: string; under: string | null }): string =>
  under === null ? label : `${under}, ${label}`;

/** What tables count, in a few words. */
export const ruleNames: Record<CountingRule, string> = {
  decided: wordsTexts.everybodyDecided,
  estimated: wordsTexts.everybodyEstimated,
  sample: wordsTexts.randomSampleReadPeople,
  settled: wordsTexts.allSettledHand,
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
  if (table.isMixed) return wordsTexts.frozenBeforeTablesOne;
  switch (counts) {
    case 'decided':
      return isFinished
        ? wordsTexts.countsEverybodyAllEvery(who)
        : wordsTexts.countsWhatDecidedAll(who, byModel, count(byModel));
    case 'estimated':
      return wordsTexts.estimatesShareAmongAll(
        who,
        basesOfEstimates(estimatedFrom, count),
        Math.round(100 * table.level),
      );
    case 'sample':
      return wordsTexts.countsRandomSampleRead(count(counted), count(sample.drawn));
    case 'settled':
      return wordsTexts.countsAnswersSettledHand({
        count: count(settled),
        count2: count(answered),
        isFinished,
        settled,
        answered,
        isAllSettled: sample.isAllSettled,
      });
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
        ? wordsTexts.answersQuestions(count(answered), count(columns.length))
        : wordsTexts.whoAnswered(count(answered)),
  };
}

/** What estimates are based on; several questions share a sentence where they are of one kind. */
function basesOfEstimates(
  from: CountedTable['estimatedFrom'],
  count: (value: number) => string,
): string {
  if (from.length < 2 || from.some(({ known, trainedAt }) => known > 0 || trainedAt === null))
    return from.map((one) => basisOf(one, count)).join(' ');
  const each = (what: 'answers' | 'sampled') => listed(from.map((one) => count(one[what])));
  return wordsTexts.modelsReadAllAnswers(each('answers'), each('sampled'));
}

const listed = (parts: readonly string[]) =>
  `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)!}`;

function basisOf(
  { sampled, answers, trainedAt, known }: CountedTable['estimatedFrom'][number],
  count: (value: number) => string,
): string {
  if (known > 0)
    return wordsTexts.answersSettledHandOther(count(known), count(answers), count(sampled));
  return trainedAt
    ? wordsTexts.modelsReadAllAnswersWhat(count(answers), count(sampled))
    : wordsTexts.restsAnswersDrawnRandom(count(sampled));
}
