/** sheet/cellFindings.ts */
export const cellFindingsTexts = {
  respondentIdLongerCharacters: (longestId: number) =>
    `The respondent id is longer than ${longestId} characters: is this the right column?`,
  cellLongerCharactersShorten: (longestText: string) =>
    `A cell is longer than ${longestText} characters: shorten it, or exclude its column.`,
  weightMissingNegativeNumber: (columns: string) =>
    `The weight “${columns}” is missing, negative or not a number: correct it, or exclude the column.`,
  rowBlankPassedOver: 'The row is blank: it is skipped.',
  rowMoreFewerCells:
    'The row has more or fewer cells than the header: missing ones count as empty, surplus ones are ignored.',
  hereValuesLeftEmpty: (name: string, kindNames: string) =>
    `“${name}” is not ${kindNames} here: these values are left empty.`,
  mojibake: (example: string) =>
    `Some letters were read wrongly before the file was written, as in “${example}”: choose another encoding, or export the file again in UTF-8.`,
  errorValues:
    'A cell holds an error such as #N/A, or a formula without a stored result: it counts as blank.',
  twoDigitYears: (name: string) =>
    `“${name}” has years of two digits: they are read as 1969 to 2068.`,
  datesInTwoWays: (one: {
    name: string;
    example: string;
    byDay: string;
    byMonth: string;
    isMonthFirst: boolean;
  }) =>
    `All dates in “${one.name}” can be read in two ways: ${one.example} is ${one.byDay} with the day first, ${one.byMonth} with the month first. They are read with the ${one.isMonthFirst ? 'month' : 'day'} first; choose the other way in the table of columns.`,
  timesDayDatesKept: (name: string) =>
    `“${name}” has times of day: the dates are kept without them.`,
  someCharactersCouldRead:
    'Some characters could not be read and show as �: choose another encoding, or save the file as UTF-8.',
  invisibleControlCharactersTaken: 'Invisible control characters are removed.',
  cellBeginsWhichSpreadsheet:
    'A cell begins with = + - or @, which spreadsheet programs may run: here it stays text, and exported files mark it as text.',
  looksLikeExcludeUnless: (name: string, personal: string) =>
    `“${name}” looks like ${personal}: exclude it unless the report needs it.`,
  yesNo: 'yes or no',
};

/** sheet/validateSettings.ts */
export const validateSettingsTexts = {
  noColumnBackgroundWeight: 'No column is background or weight: there is nothing to add.',
  noColumnOpenQuestion: 'No column is an open question: choose the one that holds the answers.',
  noColumnRespondentId:
    'No column is the respondent id: without it nobody can be found in the study.',
  noColumnRespondentIdRespondents:
    'No column is the respondent id: respondents are named by their row number.',
  severalColumnsRespondentId: 'Several columns are the respondent id: keep one.',
  severalColumnsWeightKeep: 'Several columns are the weight: keep one.',
  existingCodesTakenNew:
    'Existing codes are imported with new respondents only: here these columns change nothing.',
  answersImportedNewRespondents:
    'Answers are imported with new respondents, with a new question or with a corrected version: here these columns change nothing.',
  twoVariablesCalledRename: (name: string) =>
    `Two variables are called “${name}”: rename one of them.`,
  headLongerCharactersShorten: (name: string, longestHead: number) =>
    `The header “${name}…” is longer than ${longestHead} characters: shorten it in the sheet.`,
  sayWhichQuestionExisting: 'Choose which question the existing codes belong to.',
  moreDifferentChoicesColumn: (mostChoices: number) =>
    `More than ${mostChoices} different choices: make the column a category, or exclude it.`,
  columnsExistingCodesName: (mostCodes: number) =>
    `The columns of existing codes name more than ${mostCodes} codes: check what separates the names.`,
  codeLongerCharactersShorten: (longCode: string, longestCode: number) =>
    `The code “${longCode}…” is longer than ${longestCode} characters: shorten it, or check what separates the names.`,
};

/** sheet/valueCounts.ts */
export const valueCountsTexts = {
  as: (others: string, label: string) => `${others} as “${label}”`,
};

/** sheet/sheetCounts.ts */
export const sheetCountsTexts = {
  responseSaysNothingBut:
    'The response says nothing but has existing codes: these codes are not imported.',
  spelledSeveralWays: (name: string, some: string, joins: boolean) =>
    `“${name}” is spelled in several ways: ${some}. ${joins ? 'They are joined: the spelling of each stays on record.' : 'They stay apart.'}`,
};

/** sheet/checkSheet.ts */
export const checkSheetTexts = {
  sheetHeadButNo: 'The sheet has a header but no rows: there is nothing to import.',
  severalRowsSameRespondent:
    'Several rows have the same respondent id: the first of each is kept, the others are skipped.',
  severalRowsSameRespondentId:
    'Several rows have the same respondent id: the last of each is kept, the others are skipped.',
  severalRowsSameRespondentIdAll:
    'Several rows have the same respondent id: all are kept, the second as “… (2)”, and so on.',
  severalRowsSameRespondentIdChoose:
    'Several rows have the same respondent id: choose what to do with them, or another column as the id.',
  respondentsStudyAlreadyRows:
    'These respondents are in the study already: their rows are not imported again.',
  idBlankRespondentsCalled: 'The id is blank: these respondents are named by their row.',
};

/** sheet/guessRoles.ts */
export const guessRolesTexts = {
  valuesDiffer: (floor: number) => `${floor / 10}% of the values differ`,
  whatOtherAskedOnly: (value: string) =>
    `what “other” in “${value}” is; asked only of those who wrote something`,
  empty: 'it is empty',
  looksLike: (personal: string) => `it looks like ${personal}`,
  allValuesDiffer: (rows: number) => `all ${rows} values differ`,
  namedAllValuesNumbers: 'its name says so, and all values are numbers from 0 up',
  oneValueBlankTick: 'one value or blank: a tick box',
  allValuesSayYes: 'all values say yes or no',
  allValuesDates: (twoWays: number) =>
    `all values are dates${twoWays > 0 ? ', read with the day first' : ''}`,
  allValuesDatesMonth: 'all values are dates with the month first',
  severalChoicesCellSeparated: (choiceSeparator: string) =>
    `several choices in a cell, separated by “${choiceSeparator}”`,
  medianWordsDistinct: (medianWords: number, round: number) =>
    `median ${medianWords} words, ${round}% distinct`,
  differentValues: (distinct: number) => `${distinct} different values`,
  commaBetweenThousands: ', with a comma between thousands',
  pointBetweenThousands: ', with a point between thousands',
  valuesNumbers: (count: number, filled: number, between: string) =>
    `${count === filled ? 'all' : `${count} of ${filled}`} values are numbers${between}`,
};

/** sheet/guessCodeColumns.ts */
export const guessCodeColumnsTexts = {
  codeCodebookCalled: 'a code in the codebook has this name',
  oneSeveralColumns0: 'one of several columns of 0 and 1 behind the question',
};

/** sheet/matchNames.ts */
export const matchNamesTexts = {
  asIn: (fileName: undefined | string) => `as in “${fileName}”`,
  anotherColumnBefore: (role: string) => `another column was the ${role} before`,
  studyAlready: 'the study has it already',
  takenStudy: (known: string) => `matched with “${known}” of the study`,
};
