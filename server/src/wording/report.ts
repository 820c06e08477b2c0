/** report/files/respondentWorkbook.ts */
export const respondentWorkbookTexts = {
  program: 'Yellow Thread',
  respondents: 'Respondents',
  dataDictionary: 'Data dictionary',
  study: 'Study',
  column: 'Column',
  type: 'Type',
  title: 'Title',
  whatHolds: 'What it holds',
};

/** report/estimates.ts */
export const estimatesTexts = {
  sharesEstimatedOneQuestion:
    'Shares are estimated for one question at a time: each has a sample of its own.',
  sharesEstimatedWhoCoded: 'Shares are not estimated by who coded the answers.',
  someAnswersRandomSample:
    'Some answers of the random sample are open again: settle them, or train again.',
  nothingCanEstimatedTakes:
    'Nothing can be estimated: that takes a random sample that is settled by hand to the last answer.',
  nothingCanEstimatedTakesAnswers: (fewestSampled: number) =>
    `Nothing can be estimated: that takes ${fewestSampled} answers of the random sample.`,
};

/** report/chooseRule.ts */
export const chooseRuleTexts = {
  whatOnePersonCoded: 'What one person coded is counted among the answers that they settled.',
  eachQuestionRandomSample:
    'Each question has a random sample of its own: they are not counted together.',
  noRandomSampleDrawn: 'No random sample was drawn.',
  noAnswerRandomSample: 'No answer of the random sample is settled by hand yet.',
};

/** report/files/facts.ts */
export const factsTexts = {
  study: 'Study',
  question: 'Question',
  allQuestions: 'all questions',
  restricted: 'Restricted to',
  counts: 'Counts',
  columns: 'Columns',
  percent: 'Percent of',
  weighted: 'Weighted',
  differences: 'Differences',
  intervals: 'Intervals',
  wilson: (round: number) => `${round}%, Wilson`,
  mentions: 'Mentions',
  spotCheck: (code: string) => `Spot check of ${code}`,
  bulkReadApplied95: (read: number, side: string, applies: number, interval: string) =>
    `${read} ${side} in bulk were read, and it applied to ${applies} (95% interval ${interval}), before anything was corrected`,
  codesClosed: 'Codes closed',
  estimatedColumns: 'Estimated columns',
  codedHand: 'coded by hand',
  suggestedReadAccepted: 'suggested, read and accepted',
  acceptedBulk: 'accepted in bulk',
  importedSheet: 'imported with a sheet',
  codedSearchWords: 'coded by a search for words',
  answersTableCount: (notCounted: number) =>
    `${notCounted} on answers that this table does not count`,
  whatNoOneMentions: (closed: string) => `What no one mentions was decided at once for ${closed}`,
  afterSuggestionsDecided: 'after its suggestions were decided',
  afterSearching: 'after searching for it',
  estimatedSharesIntervalsCounts: (trainedOn: string | null, answers: number, sampled: number) =>
    `Estimated shares, with their intervals, are not counts: ${trainedOn ? `models of ${trainedOn} read all ${answers} answers, and what they say is corrected by ${sampled} that were drawn at random and read (difference estimator)` : `they rest on ${sampled} of ${answers} answers that were drawn at random and read`}.`,
  eachColumnEveryoneElse: 'each column with everyone else',
  columnsEachOther: 'columns with each other',
  twoSided: (with_: string, round: number, correctionWords: string) =>
    `${with_}, two-sided at ${round}%, ${correctionWords}`,
};

/** report/files/grid.ts */
export const gridTexts = {
  higher: (letter: string, full: string) => `${letter} ${full}: higher than`,
  estimatedShare: (full: string) => `${full}: estimated share`,
  estimated: (full: string, percent: number) => `${full}: estimated, ${percent}% from`,
  estimated2: (full: string, percent: number) => `${full}: estimated, ${percent}% to`,
  allWhoAnswered: (full: string) => `${full}: of all who answered`,
  readRandom: (full: string) => `${full}: read at random`,
  mention: (full: string) => `${full}: of these mention it`,
  people: (full: string) => `${full}: people`,
  base: (full: string) => `${full}: base`,
  undecided: (full: string) => `${full}: undecided`,
  weightedBase: (full: string) => `${full}: weighted base`,
  effectiveBase: (full: string) => `${full}: effective base`,
  percent: (full: string) => `${full}: percent`,
  from: (full: string, percent: number) => `${full}: ${percent}% from`,
  to: (full: string, percent: number) => `${full}: ${percent}% to`,
  mentions: (full: string) => `${full}: mentions`,
  againstEveryoneElse: (full: string) => `${full}: against everyone else`,
  kind: 'Kind',
  under: 'Under',
  name: 'Name',
  least: 'At least',
  difference: 'Difference',
  difference2: 'Difference: from',
  difference3: 'Difference: to',
  differenceTest: 'Difference: test',
  differenceStatistic: 'Difference: statistic',
  differenceP: 'Difference: p',
  tests: { z: 'z', fisher: 'Fisher’s exact', rao_scott: 'Rao–Scott F' },
  weightedPeople: (full: string) => `${full}: weighted people`,
  weightedMentions: (full: string) => `${full}: weighted mentions`,
  whole: (weighted: boolean) => (weighted ? 'Rao–Scott F' : 'Chi-square'),
  wholeDf: (weighted: boolean) =>
    weighted ? 'Rao–Scott: degrees of freedom' : 'Chi-square: degrees of freedom',
  wholeDf2: 'Rao–Scott: degrees of freedom of the denominator',
  wholeP: (weighted: boolean) => (weighted ? 'Rao–Scott: p' : 'Chi-square: p'),
  cramersV: 'Cramér’s V',
  least2: 'at least',
};

/** report/files/agreementGrid.ts */
export const agreementGridTexts = {
  alphaAllCodings: (coders: number) => `alpha of all ${coders} codings`,
  agreement: 'Agreement',
  codedFirst: 'Coded first by',
  codedOnceMore: 'Coded again by',
  withoutFirstCodesView: (reader: string) => `${reader}, without the first codes in view`,
  answers: 'Answers',
  answersOf: (n: number, drawn: number | null, drawnFrom: number) =>
    drawn !== null && drawn > n
      ? `${n} of ${drawn} that were drawn at random from ${drawnFrom} settled ones; ended early, so no longer a random sample`
      : `${n}, drawn at random from ${drawnFrom} settled ones`,
  exactlySameCodes: 'Exactly the same codes',
  krippendorffsAlphaSetsCodes: 'Krippendorff’s alpha of sets of codes (MASI)',
  setsCodes: (all: string) => `Sets of codes, ${all}`,
  intervals: 'Intervals',
  n95LargeSamplesOver:
    '95%; large-sample error, or the bootstrap over answers where a code is rare; over all codes by the jackknife, an answer at a time',
  code: 'Code',
  kappa: 'kappa from',
  kappa2: 'kappa to',
  allCodes: 'All codes',
  defined: 'not defined',
};

/** report/files/workbook.ts */
export const workbookTexts = {
  program: 'Yellow Thread',
  cut: (most: number, length: number) =>
    ` … [cut here: a cell holds ${most} characters, and this text has ${length}. The data package of respondents has all of it.]`,
  respondent: 'Respondent',
  question: 'Question',
  answer: 'Answer',
  settled: 'Settled',
  code: 'Code',
  theme: 'Theme',
  passage: 'Passage',
  howCoded: 'How coded',
  coder: 'Coder',
  answers: 'Answers',
  table: 'Table',
};

/** report/files/answers.ts */
export const answersTexts = {
  hand: 'by hand',
  suggestionAccepted: 'suggestion accepted',
  acceptedBulk: 'accepted in bulk',
  cameSheet: 'imported with a sheet',
  wordsLooked: 'coded by a search for words',
};

/** report/files/blocks.ts */
export const blocksTexts = {
  estimated: (columnName: string) => `${columnName}, estimated`,
  allWhoAnswered: (answered: number) => `all ${answered} who answered`,
  effectiveBase: 'Effective base',
  answered: 'Answered',
  sampleAnswered: 'Sample of answered',
  settledAnswered: 'Settled of answered',
  leastUndecided: (told: string, undecided: number) => `at least ${told}, ${undecided} undecided`,
  to: (value: undefined | string, low: undefined | string, high: undefined | string) =>
    `${value}% (${low} to ${high})`,
  bracketsInterval: 'In brackets the interval.',
  difference: 'Difference',
  anyDifference: 'Any difference',
  differenceOf: (value: string, interval: readonly string[], p: string) =>
    `${value} (${interval.join(' to ')}), ${p}`,
  wholeOf: (
    test: 'chi_square' | 'rao_scott',
    value: string,
    degrees: readonly string[],
    p: string,
  ) => `${test === 'chi_square' ? 'χ²' : 'F'} ${value}, df ${degrees.join('; ')}, ${p}`,
  tooFew: 'too few',
  lowBases: (few: number, veryFew: number) =>
    `* marks percentages of fewer than ${few} people, ** of fewer than ${veryFew}.`,
  weightedCount: (sum: number, count: number) => `${sum.toFixed(1)}; n ${count}`,
  percentNumberBrackets: (baseWords: string, base: string, weighted: boolean) => {
    const what = base === 'mentions' ? 'mentions' : 'people';
    return weighted
      ? `Percent of ${baseWords}, weighted; in brackets the weighted number of ${what}, and the unweighted one as n.`
      : `Percent of ${baseWords}, with the number of ${what} in brackets.`;
  },
  letterNamesColumnWhose: (round: number, correctionWords: string) =>
    `A letter names a column whose percentage is significantly lower (two-sided, ${round}%, ${correctionWords}).`,
  markWhatSignificantlyHigher: (round: number, correctionWords: string) =>
    `+ and − mark what is significantly higher or lower than among everyone else (two-sided, ${round}%, ${correctionWords}).`,
  comparedEachOtherSince: (overlapping: string) =>
    `Not compared with each other, since they have respondents in common: ${overlapping}.`,
};

/** report/files/docx.ts */
export const docxTexts = {
  writtenBy: 'Written by Yellow Thread',
  chart: 'Chart',
  yellowThread: 'Yellow Thread',
};

/** report/files/togetherGrid.ts */
export const togetherGridTexts = {
  codesTogether: 'Codes together',
  counts: 'Counts',
  one: (ruleNames: string, inOne: string) => `${ruleNames}, in one ${inOne}`,
  weighted: 'Weighted',
  jaccard: 'Jaccard',
  phi: 'Phi',
  correlationHavingTwoCodes: 'correlation of having the two codes, −1 to 1 (Yule 1912)',
  lift: 'Lift',
  howManyTimesOften: 'how many times as often together as by chance',
  p: 'p',
  howTested:
    'unweighted, corrected for all pairs (Benjamini–Hochberg); Fisher’s exact test, or G² where at least five are expected in every cell',
  code: 'Code',
  otherCode: 'Other code',
  both: (unit: string) => `${unit} with both`,
  bothUnweighted: (unit: string) => `${unit} with both, unweighted`,
  code2: (unit: string) => `${unit} with the code`,
  other: (unit: string) => `${unit} with the other`,
  all: (unit: string) => `${unit} in all`,
};

/** report/respondentTable.ts */
export const respondentTableTexts = {
  yesNo: ['no', 'yes'],
  mentioned: ['not mentioned', 'mentioned'],
  whenMentioned: (code: string, definition: string) =>
    `1 when the answer mentions “${code}”, 0 when not, empty where that is not decided${definition && `. ${definition}`}`,
  theme: (question: string, theme: string) => `${question}: theme ${theme}`,
  whenThemeMentioned: (theme: string) =>
    `1 when the answer mentions any code of “${theme}”, 0 when none, empty where that is not decided`,
  respondent: 'Respondent',
  surveysOwnId: 'The survey’s own id',
  weight: 'Weight',
  howManyRespondentsOne: 'How many respondents this one stands for',
  background1Yes0: 'Background: 1 for yes, 0 for no',
  background: 'Background',
  n1WhenAsked: (wording: string) => `1 when asked: ${wording}`,
  n1WhenAnswered: '1 when answered',
  n1WhenCodesAnswer: '1 when the codes of the answer are settled',
  howManyMentionsAnswer: 'How many mentions there are in the answer',
};

/** report/routes.ts */
export const routesTexts = {
  study: 'Study',
  question: 'Question',
  restricted: 'Restricted to',
  oneRowRespondentColumn: 'One row a respondent, a column of 0 and 1 a code of each question.',
  restricted2: (group: string, describeRule: string) => `Restricted to ${group}: ${describeRule}.`,
  allRespondents: 'All respondents.',
  written: (toISOString: string) => `Written ${toISOString}.`,
};

/** writeUps/document.ts */
export const documentTexts = {
  aboutTables: 'About the tables',
};

/** report/files/testGrid.ts */
export const testGridTexts = {
  name: 'Tests',
  row: 'Theme or code',
  column: 'Column',
  against: 'Against',
  test: 'Test',
  statistic: 'Statistic',
  df: 'Degrees of freedom',
  df2: 'Degrees of freedom of the denominator',
  p: 'p',
  corrected: 'p, corrected',
  effect: 'Effect',
  value: 'Effect: value',
  low: 'Effect: from',
  high: 'Effect: to',
  allColumns: 'all columns',
  everyoneElse: 'everyone else',
  differenceOfShares: 'difference of shares',
  cramersV: 'Cramér’s V',
  adjustedResidual: 'adjusted residual',
  wholes: { chi_square: 'chi-square', rao_scott: 'Rao–Scott F' },
};

/** writeUps/pictureGrid.ts */
export const pictureGridTexts = {
  name: 'Chart',
  chart: 'Chart',
  none: 'Write-up',
  noTable: 'This write-up has no table, and its charts were kept without their figures.',
};
