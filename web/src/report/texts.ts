import type { BaseKind, CorrectionChoice, RowKind, RowOrder } from '@yellow-thread/contract';
import type { Decimals } from '@yellow-thread/core/report';
import { barScales, cellKinds, USUAL_LIMITS, type TableChoice } from './tableChoice.js';

export const baseNames: Record<BaseKind, string> = {
  settled: 'those who count',
  answered: 'all who answered',
  asked: 'all who were asked',
  mentions: 'all mentions',
};
export const testNames: Record<CorrectionChoice, string> = {
  holm: 'tested, Holm',
  benjamini_hochberg: 'tested, Benjamini–Hochberg',
  none: 'tested, not corrected',
  off: 'not tested',
};
export const rowNames: Record<RowKind, string> = {
  book: 'themes and codes',
  themes: 'themes',
  codes: 'codes',
  bundles: 'bundles',
};
export const orderNames: Record<RowOrder, string> = {
  frequency: 'most mentioned first',
  difference: 'largest difference first',
  book: 'as in the codebook',
  name: 'by name',
};

/** A list, since whole numbers as keys would come first. */
export const decimalNames: readonly [Decimals, string][] = [
  ['fitting', 'by the base'],
  ['0', 'none'],
  ['1', 'one'],
  ['2', 'two'],
];

/** What each part of the choices is for. */
export const choiceHelp = {
  rows: 'Themes count a person once, however many of their codes they mention.',
  order: 'Frequency goes by the first column.',
  chosen: 'Shows these codes alone.',
  empty: 'Hides what nobody mentions.',
  questions: 'Any question: out of everybody who answered at least one.',
  groups: 'Which of the saved groups stand across.',
  difference: 'One column minus another, in percentage points with an interval.',
  estimated:
    'Puts shares for everybody, from the random sample and the models, beside what is counted.',
  cells: 'What each cell shows; a percentage always has its base in the head of its column.',
  bars: 'What the longest bar stands for.',
  decimals: 'By the base: none under 100 people, one from there on.',
  interval: 'Shows the interval of every percentage (Wilson).',
  test: 'A letter in a cell names a column whose share is lower by more than chance. Holm corrects for the number of comparisons.',
  against: 'Every two columns, or each column and everybody who is not in it.',
  level: 'How sure a difference, and how wide an interval, should be.',
  limits: 'Percentages on few people are easily chance: they are set in italics, and in grey.',
};

/** How a table differs from the usual one, in a few words each; what stands beside the button is left out. */
export function unusualChoices(choice: TableChoice): string[] {
  const { rows, order, cells, bars, questions, test, against, level, difference } = choice;
  const said: (string | false)[] = [
    rows !== 'book' && rowNames[rows],
    order !== 'frequency' && orderNames[order],
    choice.chosen.length > 0 && 'some codes only',
    choice.empty === 'hidden' && 'empty rows hidden',
    questions === 'all' && 'mentioned in any question',
    difference !== undefined && 'difference of two columns',
    choice.estimated && 'estimates beside',
    cells !== 'percent' && cellKinds[cells],
    bars !== 'table' && `bars against ${barScales[bars]}`,
    choice.decimals !== 'fitting' && `${choice.decimals} decimals`,
    choice.interval && 'intervals',
    test !== 'holm' && testNames[test],
    test !== 'off' && against === 'rest' && 'against everybody else',
    level !== '95' && `${level}%`,
    (choice.low !== USUAL_LIMITS.low || choice.lowest !== USUAL_LIMITS.lowest) && 'other low bases',
  ];
  return said.filter((one) => one !== false);
}
