import { asCount, counted } from '../lib/numbers.js';

/** respondents/respondentFilter.tsx */
export const respondentFilterTexts = {
  onlyWhom: 'Only those who meet',
  noLongerNarrow: (variable: string) => `Remove the filter on ${variable}`,
  narrow: 'Filter by',
  narrow2: 'Filter by …',
};

/** respondents/valueEditor.tsx */
export const valueEditorTexts = {
  yes: 'Yes',
  no: 'No',
  mustNumber: 'This must be a number.',
  mustDate: 'This must be a date.',
  mustYesNo: 'This must be yes or no.',
  of: (variable: string, externalId: string) => `${variable} of ${externalId}`,
};

/** respondents/bandMaker.tsx */
export const bandMakerTexts = {
  banded: (variable: string) => `${variable}, banded`,
  makeBands: 'Make bands',
  bandsBegin: 'Bands begin at',
  daysSeparatedCommasWritten:
    'Days separated by commas, written year first; everything before the first is a band too.',
  numbersSeparatedCommas0: 'Numbers separated by commas: 0, 7, 9 makes 0–6, 7–8 and 9 and over.',
  before: 'before',
  nameBand: (from: null | string | number) => `Name of the band from ${from ?? 'the beginning'}`,
  nameNewVariable: 'Name of the new variable',
  makeVariable: 'Make the variable',
  madeReportsCanFollows: (name: string) =>
    `“${name}” was made: reports can be broken down by it, and it follows later values.`,
  from: (from: string | number) => `from ${from}`,
};

/** respondents/variableDrawer.tsx */
export const variableDrawerTexts = {
  yesNo: 'yes or no',
  variable: 'the variable',
  name: 'Name',
  removeVariable: 'Remove this variable',
  bands2: 'Bands',
  everythingBelow: ' everything below',
  several: 'in several of these',
  none: 'in none of these',
  categories: 'Categories',
  whoWhichFollowsRule:
    'Who belongs to which category follows from its rule and is always up to date.',
  whoSeveralCountsFirst: ' Who is in several counts in the first.',
  fromTo: (lowest: string, highest: null | string) => `, from ${lowest} to ${highest}`,
  workedOutRules: 'worked out by rules',
  stated: (how: null | string, kinds: string, stated: number, range: string) =>
    `${how ?? kinds}, ${asCount(stated)} stated${range}`,
  reportsFollowOrderNames:
    'Reports follow this order and these names; categories of one name are joined. The sheet’s own values stay on record.',
  whatCalled: (value: string) => `Name of ${value}`,
  sheet: (alike: boolean, value: string) => `${alike ? 'joined; ' : ''}in the sheet “${value}”`,
  from: (from: string | number) => ` from ${from}`,
};

/** respondents/respondentsPage.tsx */
export const respondentsPageTexts = {
  nobodyHereYet: 'No respondents yet',
  respondentsComeSheetEach:
    'Respondents are imported with a sheet, each with an id and background.',
  importSheet: 'Import a sheet',
  respondents: 'Respondents',
  respondentCounted: (respondents: number) => counted(respondents, 'respondent'),
  find: 'Find',
  idValue: 'an id or a value',
  respondentsBackground: 'Respondents and their background',
  id: 'Id',
  weight: 'Weight',
  sort: (name: string) => `Sort by ${name}`,
  aboutNameCategoriesBands: (name: string) => `About ${name}: its name, categories, bands`,
  of: (data: number, respondentCounted: string) => `${asCount(data)} of ${respondentCounted}`,
  about: (name: string) => `About ${name}`,
};

/** respondents/personalDataDrawer.tsx */
export const personalDataTexts = {
  title: 'Personal data of one respondent',
  open: 'Personal data …',
  whoAsks: 'For a person who asks what is kept of them, or wants to be deleted.',
  idOfRespondent: 'Id of the respondent',
  asInSheet: 'As in the sheet; also of somebody whose import was undone.',
  whatIsKept: 'What is kept',
  whatFileHolds:
    'A file (JSON) with their background, answers, codes and notes, what was changed of them, and every row of the database that is theirs.',
  download: 'Download',
  deleteForGood: 'Delete for good',
  whatGoes:
    'Their answers and all that hangs on them, their records in the history, and their words in write-ups and frozen copies; figures of frozen copies stay. It cannot be undone. Backups keep them until they are replaced, models that were trained before until they are trained again, and a sheet that is imported again brings them back.',
  deleteAsk: 'Delete …',
  sure: (id: string) => `Delete ${id} from everywhere?`,
  cancel: 'Cancel',
  deleted: (answers: number, changes: number, writeUps: number) =>
    `Deleted, with ${counted(answers, 'answer')}. Removed from ${counted(changes, 'change')} of the history and from ${counted(writeUps, 'write-up')}.`,
};
