import { asCount, counted } from '../parts/numbers.js';

/** respondents/respondentFilter.tsx */
export const respondentFilterTexts = {
  onlyWhom: 'Only those of whom',
  noLongerNarrow: (variable: string) => `No longer narrow by ${variable}`,
  narrow: 'Narrow by',
  narrow2: 'Narrow by …',
};

/** respondents/valueEditor.tsx */
export const valueEditorTexts = {
  yes: 'Yes',
  no: 'No',
  mustNumber: 'This must be a number.',
  mustDate: 'This must be a date.',
  mustYesNo: 'This must be yes or no.',
};

/** respondents/bandMaker.tsx */
export const bandMakerTexts = {
  banded: (variable: string) => `${variable}, banded`,
  makeBands: 'Make bands of it',
  bandsBegin: 'Bands begin at',
  daysSeparatedCommasWritten:
    'Days separated by commas, written year first; everything before the first is a band too.',
  numbersSeparatedCommas0: 'Numbers separated by commas: 0, 7, 9 makes 0–6, 7–8 and 9 and over.',
  before: 'before',
  nameBand: (from: null | string | number) => `Name of the band from ${from ?? 'the beginning'}`,
  nameNewVariable: 'Name of the new variable',
  makeVariable: 'Make the variable',
  madeReportsCanFollows: (name: string) =>
    `“${name}” is made: reports can be by it, and it follows later values.`,
};

/** respondents/variableDrawer.tsx */
export const variableDrawerTexts = {
  yesNo: 'yes or no',
  variable: 'the variable',
  name: 'Name',
  bands: 'bands',
  removeVariable: 'Remove this variable',
  bands2: 'Bands',
  everythingBelow: ' everything below',
  several: 'in several of these',
  none: 'in none of these',
  categories: 'Categories',
  whoWhichFollowsRule: 'Who is in which follows from its rule, and is up to date at any time.',
  whoSeveralCountsFirst: ' Who is in several counts in the first.',
  fromTo: (lowest: string, highest: null | string) => `, from ${lowest} to ${highest}`,
  workedOutRules: 'worked out by rules',
  stated: (how: null | string, kinds: string, stated: number, range: string) =>
    `${how ?? kinds}, ${asCount(stated)} stated${range}`,
  reportsFollowOrderNames:
    'Reports follow this order and these names; categories of one name are joined. What stands in the sheet stays on record.',
  whatCalled: (value: string) => `What ${value} is called`,
  sheet: (alike: boolean, value: string) => `${alike ? 'joined; ' : ''}in the sheet “${value}”`,
};

/** respondents/respondentsPage.tsx */
export const respondentsPageTexts = {
  nobodyHereYet: 'Nobody is here yet',
  respondentsComeSheetEach:
    'Respondents come in with a sheet, each with an id and what is known of them.',
  importSheet: 'Import a sheet',
  respondents: 'Respondents',
  respondentCounted: (respondents: number) => counted(respondents, 'respondent'),
  find: 'Find',
  idValue: 'an id or a value',
  n160pxRepeatMinmax150px: (weighted: boolean, variables: number) =>
    `160px ${weighted ? '90px ' : ''}repeat(${variables}, minmax(150px, 1fr))`,
  respondentsBackground: 'Respondents and their background',
  cell: (row: number, column: number) => `cell-${row}-${column}`,
  id: 'Id',
  weight: 'Weight',
  sort: (name: string) => `Sort by ${name}`,
  aboutNameCategoriesBands: (name: string) => `About ${name}: its name, categories, bands`,
};
