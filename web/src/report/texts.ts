import {
  asCount,
  asDate,
  asList,
  asP,
  asPercent,
  asShare,
  asWeighted,
  counted,
  plural,
} from '../lib/numbers.js';
import type { BaseKind, CorrectionChoice, RowKind, RowOrder } from '@yellow-thread/contract';
import type { Decimals } from '@yellow-thread/core/report';

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
  level: 'The confidence level of tests and intervals.',
  limits: 'Percentages on few people are easily chance: they are set in italics, and in grey.',
};

/** What stands in the cells of the table. */
export const cellKinds = {
  percent: 'percentages',
  people: 'people',
  mentions: 'mentions',
  mean: 'mentions per person',
  yes: 'yes or no',
} as const;

/** What the longest bar stands for. */
export const barScales = {
  table: 'the whole table',
  column: 'its column',
  row: 'its row',
} as const;

export const unusualTexts = {
  someCodes: 'some codes only',
  emptyHidden: 'empty rows hidden',
  anyQuestion: 'mentioned in any question',
  difference: 'difference of two columns',
  estimated: 'with estimates',
  bars: (scale: string) => `bars against ${scale}`,
  decimals: (decimals: string) => `${decimals} decimals`,
  intervals: 'intervals',
  againstRest: 'against everybody else',
  level: (level: string) => `${level}%`,
  lowBases: 'other low bases',
};

/** report/filesMenu.tsx */
export const filesMenuTexts = {
  workbookXlsx: 'Workbook (XLSX)',
  allAnswersCodes: 'with all answers and their codes',
  documentDocx: 'Document (DOCX)',
  wordProcessor: 'for a word processor',
  pageHtml: 'Page (HTML)',
  shownPrintedSavedPdf: 'to be shown, printed or saved as PDF',
  csv: 'CSV',
  anyOtherProgram: 'for any other program',
  tidy: 'Tidy CSV (ZIP)',
  forStatistics: 'one row a cell, and one a test, for R, Python or SPSS',
  dataPackageCsv: 'Data package (CSV)',
  dataDictionaryZip: 'with a data dictionary, as a ZIP',
  dataDictionary: 'with a data dictionary',
  files: 'Files',
  table: 'This table',
  oneRowRespondent0: 'One row a respondent, 0 and 1 for each code',
};

/** report/putInWriteUp.tsx */
export const putInWriteUpTexts = {
  table: 'This table',
  putInto: (done: string) => `Put into “${done}”.`,
  open: 'Open it',
  writeUp: 'Write up',
  newWriteUp: (name: string) => `${name} in a new write-up`,
  in: (name: string, name2: string) => `${name} in “${name2}”`,
  allWriteUps: 'All write-ups',
};

/** report/answersBehind.tsx */
export const answersBehindTexts = {
  answers: 'the answers',
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  answerCounted: (total: number) => counted(total, 'answer'),
  words: ' with these words',
  randomSampleWhichShare: ' of the random sample, from which the share is estimated',
  answersContaining: 'Answers containing',
  containing: 'containing …',
  copy: 'Copy',
  code: 'In Code',
  showMore: 'Show more',
  copied: (answers: number, areThereMore: boolean) =>
    `Copied ${counted(answers, 'answer')}${areThereMore ? ': show more to copy the rest' : ''}.`,
  browserLetPageCopy:
    'The browser does not let this page copy: select the answers and copy them by hand.',
  madeGroup: (group: string) => `Made the group “${group}”.`,
  see: 'See it',
  makeGroup: 'Make a group',
};

/** report/crosstabHead.tsx */
export const crosstabHeadTexts = {
  themeCode: 'Theme and code',
  theme: 'Theme',
  code: 'Code',
  bundleCode: 'Bundle and code',
  letterTests: 'its letter in tests',
  weightedEffective: (round: number, round2: number) =>
    `weighted ${asCount(round)}, effective ${asCount(round2)}`,
  difference: 'Difference',
  estimatedAllWhoAnswered: 'estimated, of all who answered',
  anyDifference: 'Any difference',
  acrossColumns: 'across the columns',
  readNeeded: (value: number, fewestSampled: number) =>
    `${asCount(value)} read, ${fewestSampled} needed`,
  read: (value: number, answered: number) => `${asCount(value)} read of ${asCount(answered)}`,
  sample: (value: number) => `${asCount(value)} of the sample`,
  settled: (settled: number, answered: number) =>
    `${asCount(settled)} settled of ${asCount(answered)}`,
};

/** report/crosstabRow.tsx */
export const crosstabRowTexts = {
  undecided: (undecided: number) => `${asCount(undecided)} undecided`,
  codes: (row: string) => `Codes of ${row}`,
  crameRsV: (toFixed: string) => `Cramér’s V ${toFixed}`,
  p: (asP: string) => `p ${asP}`,
  tooFew: 'too few',
  f: 'F',
  to: (low: number, sampled: number, decimals: Decimals, high: number) =>
    `${asPercent(low, sampled, decimals)} to ${asPercent(high, sampled, decimals)}`,
  sampleOnly: 'sample only',
  leastUndecided: (undecided: number) => `at least, ${asCount(undecided)} undecided`,
  higherEveryoneElse: 'higher than everyone else',
  lowerEveryoneElse: 'lower than everyone else',
  higher: (exceeds: string) => `higher than ${exceeds}`,
  estimated: (about: undefined | string) => `estimated, ${about}`,
  least: 'at least',
  yes: 'yes',
  weightedCount: (weighted: number, unweighted: number) =>
    `${asWeighted(weighted)} · n ${asCount(unweighted)}`,
  weightedOf: (one: { weighted: number; base: number; part: number; people: number }) =>
    `${asWeighted(one.weighted)} of ${asWeighted(one.base)} · n ${asCount(one.part)} of ${asCount(one.people)}`,
  ofWeighted: (weighted: number, base: number) =>
    `weighted ${asWeighted(weighted)} of ${asWeighted(base)}`,
  of: (part: number, people: number) => `${asCount(part)} of ${asCount(people)}`,
};

/** report/moreChoices.tsx */
export const moreChoicesTexts = {
  rows: 'Rows',
  order: 'in order',
  hideEmptyRows: 'hide empty rows',
  remove: 'Remove',
  deletedCode: 'a deleted code',
  onlyCodes: 'Only these codes',
  and: 'and …',
  onlyCode: 'only the code …',
  columns: 'Columns',
  mentioned: 'Mentioned in',
  question: 'this question',
  anyQuestion: 'any question',
  difference: 'Difference:',
  minus: 'minus',
  none: 'none',
  estimatedColumnsBeside: 'estimated columns beside',
  cells: 'Cells',
  barsAgainst: 'Bars against',
  decimals: 'Decimals',
  intervals: 'intervals',
  tests: 'Tests',
  differences: 'Differences',
  between: 'between',
  everyTwoColumns: 'every two columns',
  eachEveryoneElse: 'each and everyone else',
  at: 'at',
  italicBelow: 'italic below',
  greyBelow: 'grey below',
  bases: 'Bases',
  people: 'people',
};

/** report/tableChoices.tsx */
export const tableChoicesTexts = {
  counts: 'Counts',
  across: 'Across',
  nothingTotal: 'nothing: the total',
  questions: 'the questions',
  groups: 'groups',
  importedWaves: 'imported waves',
  coders: 'coders',
  singleRespondents: 'single respondents',
  background: 'Background',
  brokenDown: 'broken down by',
  nothing: 'nothing',
  percent: 'Percent of',
  weighted: 'weighted',
  fewerChoices: 'Fewer choices',
  moreChoices: 'More choices',
};

/** report/tableView.tsx */
export const tableViewTexts = {
  told: (count: number, how: string) => `${asCount(count)} ${plural(count, 'was', 'were')} ${how}`,
  whatLeft: 'What is left',
  report: 'the report',
  nothingCountYet: 'Nothing to count yet',
  noAnswerSettledYet: 'No answer is settled yet. Code some answers to see figures here.',
  codeSomeAnswers: 'Code some answers',
  holmCorrectedWithinRow: 'Holm-corrected within a row',
  falseDiscoveryRateWithin: 'false discovery rate within a row',
  correctedManyPairsSome: 'not corrected: with many pairs some differ by chance alone',
  codeWithoutModelOne: (fewestSampled: number) =>
    `A code without a model, and one that nobody in the sample mentions, has the sample’s own share. A theme’s estimate is kept between its largest code and the sum of its codes. A column needs ${fewestSampled} answers of the sample. `,
  percentagesOut: (baseWords: string) => `Percentages are out of ${baseWords}. `,
  comparedSinceRespondentsCommon: (overlapping: string) =>
    `Not compared, since they have respondents in common: ${overlapping}. Choose “each and everyone else” to compare them. `,
  figuresFewerPeopleSet: (low: number, lowest: number) =>
    `Figures on fewer than ${low} people are set in italics, on fewer than ${lowest} in grey.`,
  codedHand: 'coded by hand',
  suggestedReadAccepted: 'suggested, read and accepted',
  acceptedBulk: 'accepted in bulk',
  importedSheet: 'imported with the sheet',
  codedSearchWords: 'coded by a search for words',
  peopleCountOnceCode: 'People count once in a code and once in a theme. ',
  the: (all: number, only: string) =>
    `The ${counted(all, 'mention')} ${plural(all, 'was', 'were')} ${only}. `,
  ofThe: (all: number, said: readonly string[]) =>
    `Of the ${counted(all, 'mention')}, ${asList(said)}. `,
  otherAnswersCounted: (notCounted: number) =>
    `${counted(notCounted, 'mention')} on other answers ${plural(notCounted, 'is', 'are')} not counted. `,
  letterBehindShareNames: (chance: string, testWords: string) =>
    `A letter behind a share names a column whose estimated share is significantly lower (z test at the effective sizes of the estimates, ${chance}, ${testWords}). Estimates are not compared with everyone else, nor tested across all columns: they share one sample. `,
  raoScott: 'Rao–Scott',
  corrected: 'corrected',
  twoProportionZTest: 'two-proportion z test, Fisher’s exact test on small counts',
  significantly: 'significantly',
  letterBehindPercentageNames: 'A letter behind a percentage names a column whose percentage is',
  lower: 'lower (',
  behindPercentageSays: '+ or − behind a percentage says that it is',
  higherLowerAmongEveryone: 'higher or lower than among everyone else (',
  lastColumnTestsEach: (weighted: boolean) =>
    `The last column tests for each row whether the columns differ at all (${weighted ? 'Rao–Scott F' : 'chi-square'}); since people mention several things, there is no such test for the table as a whole. “Too few” means that expected counts are too small for it. `,
  spotCheckReadBulk: ({
    code,
    read,
    side,
    applies,
    interval,
  }: {
    code: string;
    read: number;
    side: string;
    applies: number;
    interval: string;
  }) =>
    `A spot check of ${code} read ${counted(read, 'answer')} ${side} in bulk: it applied to ${asShare(applies / read)} of them (95% interval ${interval}), before anything was corrected. `,
  closedAnswersNobodyCoded: (names: string, closed: number) =>
    `${names} ${plural(closed, 'is', 'are')} closed: answers that nobody coded so count as not mentioning ${plural(closed, 'it', 'them')}. `,
  estimatedColumnsCountsColumn: (
    trainedAt: null | string,
    answers: number,
    sampled: number,
    fewestSampled: number,
  ) =>
    `Estimated columns are not counts: ${trainedAt ? `the models of ${asDate(trainedAt)} read all ${counted(answers, 'answer')}, and what they say is corrected by ${asCount(sampled)} that were drawn at random and read (difference estimator)` : `they rest on ${asCount(sampled)} answers that were drawn at random and read`}; a column needs ${fewestSampled} of these. `,
};

/** report/reportStop.tsx */
export const reportStopTexts = {
  table: 'Table',
  charts: 'Charts',
  codesTogether: 'Codes together',
  tone: 'Tone',
  report: 'Report',
  writeUps: 'Write-ups',
  charts2: 'the charts',
};

/** report/cell.ts */
export const cellTexts = {
  mentions: (what: string) => `Mentions ${what}`,
};

/** report/cellTests.tsx */
export const cellTestsTexts = {
  tests: 'Tests',
  theTests: 'the tests',
  none: 'Nothing is tested here: a test takes two columns with nobody in common, and ten people in each.',
  against: 'against',
  points: 'difference, points',
  test: 'test',
  p: 'p',
  corrected: 'p, corrected',
  everyoneElse: 'everyone else',
  difference: (value: string, interval: readonly string[]) => `${value} (${interval.join(' to ')})`,
  statistic: (
    {
      test,
      statistic,
      degrees,
    }: { test: 'z' | 'fisher' | 'rao_scott'; statistic: number | null; degrees: readonly number[] },
    sign: number,
  ) => {
    if (test === 'fisher' || statistic === null) return 'Fisher’s exact';
    if (test === 'z') return `z ${(sign * statistic).toFixed(2)}`;
    return `F ${statistic.toFixed(2)} (${degrees.map((one) => one.toFixed(0)).join('; ')})`;
  },
  whole: ({
    test,
    value,
    degrees,
    p,
    strength,
  }: {
    test: 'chi_square' | 'rao_scott';
    value: number;
    degrees: readonly number[];
    p: number;
    strength: number;
  }) =>
    `All columns: ${test === 'chi_square' ? 'χ²' : 'Rao–Scott F'} ${value.toFixed(2)}, df ${degrees.map((one) => String(Number(one.toFixed(1)))).join('; ')}, p ${asP(p)}, Cramér’s V ${strength.toFixed(2)}.`,
  residual: (residual: number) => `Adjusted residual of this column: ${residual.toFixed(2)}.`,
};
