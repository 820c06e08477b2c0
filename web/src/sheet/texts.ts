import type { FileSettings } from '@yellow-thread/contract';
import { asCount, asDate, counted } from '../lib/numbers.js';

/** sheet/roles.ts */
export const rolesTexts = {
  respondentId: 'respondent id',
  openQuestion: 'open question',
  backgroundCategory: 'background: category',
  backgroundNumber: 'background: number',
  backgroundDate: 'background: date',
  backgroundYesNo: 'background: yes or no',
  backgroundTickBox: 'background: tick box',
  backgroundSeveralChoices: 'background: several choices',
  existingCodes: 'existing codes',
};

/** sheet/importHistory.tsx */
export const importHistoryTexts = {
  sheetsStudy: 'Sheets of this study',
  respondentCounted: (respondents: number) => counted(respondents, 'respondent'),
  background: (changedPeople: number) => `background of ${asCount(changedPeople)}`,
  textCounted: (changedTexts: number) => counted(changedTexts, 'text'),
  wave: (wave: string) => `wave “${wave}”`,
  nothingNew: 'nothing new',
  by: (whatCameIn: string, by: string, at: string) => ` ${whatCameIn}; by ${by}, ${asDate(at)}`,
  size: 'size',
  sha256: 'SHA-256',
  came: 'imported',
  decided: 'Decided',
  found: 'Found',
  rowCounted: (count: number) => counted(count, 'row'),
  columns: 'Columns',
  undone: (by: string, at: string) => `undone by ${by}, ${asDate(at)}`,
  keptUntil: (until: string) => `Kept until ${asDate(until)}`,
  restoring: 'Restoring …',
  restore: 'Restore',
  responseCounted: (responses: number) => counted(responses, 'response'),
  settledAnswerCounted: (settled: number) => counted(settled, 'settled answer'),
  madeSince: (mentions: number) => `${counted(mentions, 'mention')} made since`,
  suggestionCounted: (suggestions: number) => counted(suggestions, 'suggestion'),
  answersSecondReadingsCounted: (codedTwice: number) =>
    counted(codedTwice, 'answer of a second reading', 'answers of second readings'),
  question: (question: string) => `the question “${question}”`,
  variable: (variable: string) => `the variable “${variable}”`,
  takeBack: (fileName: string) => `Undo the import of ${fileName}`,
  undoing: 'Undoing …',
  undoImport: 'Undo import',
  undoImport2: (fileName: string) => `Undo the import of ${fileName}?`,
  peopleWorkedWhatCame: 'People have worked on what was imported. This would be removed too:',
  nothingCodedWhatWould: 'Nothing was coded in it. This would be removed:',
  textsGetBackWhat: (restored: number) =>
    `${counted(restored, 'value')} or texts return to what they were before.`,
  thirtyDaysCanRestored: 'For thirty days it can be restored with all of that.',
  undoImport3: 'Undo the import',
  keep: 'Keep it',
  restore2: (fileName: string) => `Restore ${fileName}`,
};

/** sheet/fillDown.tsx */
export const fillDownTexts = {
  dragGiveOtherColumns: (name: string) => `Drag to give other columns the role of ${name}`,
};

/** sheet/writings.ts */
export const writingsTexts = {
  n4545: '4,5 and 4.5 have decimals',
  dayComesFirst: 'the day comes first',
  monthComesFirst: 'the month comes first',
};

/** sheet/columnTable.tsx */
export const columnTableTexts = {
  whatEachColumnGuesses:
    'What is each column for? The guesses can be changed. Hold Shift to choose a range of columns, or drag a role down by its corner.',
  the: (chosen: number) => `The ${counted(chosen, 'chosen column')}:`,
  setWhat: 'set their role',
  chooseAllColumns: 'Choose all columns',
  column: 'Column',
  is: 'Role',
  firstValues: 'First values',
  what: (head: string) => `Role of ${head}`,
  separated: 'separated by ;',
  separated2: 'separated by ,',
  separated3: 'separated by |',
  whichQuestionBelongs: (head: string) => `Which question ${head} belongs to`,
  studysQuestion: 'the study’s question',
  questionOwn: 'a question of its own',
  part: 'part of: ',
  whichClosedQuestionBelongs: (head: string) => `Which closed question ${head} belongs to`,
  askedEverybody: 'asked of everybody',
  whatOther: (variable: string) => `what “other” in ${variable} is`,
  whichQuestionCodesGiven: (head: string) => `Which question the codes in ${head} were given to`,
  for: (wording: string) => `for: ${wording}`,
  howHoldsCodes: (head: string) => `How ${head} holds codes`,
  oneCode01: 'one code: 0, 1, 2 … or yes',
  whatPartsChoices: (head: string) => `What separates the choices in ${head}`,
  howWritten: (head: string) => `How ${head} is written`,
  whichVariable: (head: string) => `Which variable ${head} is`,
  newVariable: 'a new variable',
  studys: (variable: string) => `the study’s ${variable}`,
  choose: (head: string) => `Choose ${head}`,
};

/** sheet/difference.tsx */
export const differenceTexts = {
  whatWouldChange: 'What would change',
  respondentsFoundId: 'respondents found by their id',
  themOtherBackground: 'of them with changed background',
  answersNew: 'answers that are new',
  answersAnotherText: 'answers with changed text',
  themCodedSettled: 'of them coded or settled',
  newRespondents: 'new respondents',
  idsStudy: 'ids the study does not have',
  respondentsSheet: 'respondents not in the sheet',
  writtenDifferentlyNothingMatched: 'Written differently? Nothing is matched until you say so.',
  is: (from: string, to: string) => `${from} is ${to}`,
  undo: 'Undo',
  itIs: 'It is',
  all: (proposals: number) => `All ${asCount(proposals)} are`,
  onlySheet: 'Only in the sheet',
  onlyStudy: 'Only in the study',
  change: 'The change',
  firstChanges: (changes: number) => `The first ${asCount(changes)} changes`,
  blank: '(blank)',
  allThemCsv: 'All of them as CSV',
  is2: (from: string, to: string) => `${from} is ${to}`,
};

/** sheet/fileReading.tsx */
export const fileReadingTexts = {
  separatedText: 'separated text',
  xlsx: 'XLSX',
  ods: 'ODS',
  jsonLines: 'JSON lines',
  read: (formats: string) => `Read as ${formats}`,
  worksheet: 'worksheet',
  encoding: 'encoding',
  whichLettersRight:
    'Some letters can be read in several ways. Choose the line in which the words are right:',
  separated: 'separated by',
  headerRow: 'header in row',
  of: 'of',
  oneRow: 'one row',
  twoRowsCodeWording: 'two rows: code and wording',
};

/** sheet/findings.tsx */
export const findingsTexts = {
  whatFound: 'What was found',
  more: (rest: number) => ` and ${asCount(rest)} more`,
  row: 'Row',
  rows: 'Rows',
  rows2: (count: number, numbers: string) => `${asCount(count)} rows: ${numbers} …`,
  repeatedIds: 'Repeated ids:',
  choose: 'choose …',
  keepFirstRow: 'keep the first row',
  keepLastRow: 'keep the last row',
  keepAllNumbered: 'keep all, numbered',
  joinThem: 'Join them',
  keepThemApart: 'Keep them apart',
  exclude: 'Exclude it',
};

/** sheet/noAnswers.tsx */
export const noAnswersTexts = {
  whatCountsNoAnswer: 'What counts as no answer',
  responsesSayNothingKept:
    'Responses that say nothing are kept, but stay out of coding and of every base. Blank ones always do; these are for you to confirm, since “nothing” can be an answer.',
  studysListWhatSays: (noAnswers: number) =>
    `The study’s list of what says nothing (${asCount(noAnswers)})`,
  another: 'Another',
  addList: 'Add to the list',
  takeOffList: (one: string) => `Take “${one}” off the list`,
  interviewersWordsInsideAnswers: 'Interviewer’s words inside answers',
  whatMarkedSaidSomebody:
    'What is marked as said by somebody else is shown dimmed, and is neither coded nor counted.',
};

/** sheet/rowsPreview.tsx */
export const rowsPreviewTexts = {
  rowsWillStored: 'Rows as they will be stored',
  firstOnesSomeRandom: 'The first ones, then some at random.',
  row: (row: number) => `row ${asCount(row)}`,
  asked: 'not asked',
  noAnswer: (text: string) => `no answer${text && `: ${text}`}`,
  codes: (codes: string) => `codes: ${codes}`,
};

/** sheet/rowsAre.tsx */
export const rowsAreTexts = {
  newRespondents: 'new respondents',
  rowsWhoseIdStudy: 'Rows whose id the study already has are skipped.',
  moreAboutRespondentsWho: 'more about existing respondents',
  backgroundAddedRespondentsSame:
    'Background is added to respondents with the same id; a blank cell changes nothing.',
  answersNewQuestionRespondents: 'answers to a new question by existing respondents',
  answersBackgroundIfSome:
    'Answers, and background if there is some, are added to respondents with the same id. Existing answers are not changed.',
  correctedVersion: 'a corrected version',
  respondentsSameIdGet:
    'Respondents with the same id get the sheet’s background and answers; new ones are added, nobody is removed. Changed answers keep their codes and are marked as corrected.',
  rows: 'The rows are',
  wave: 'Wave',
  tellsRespondentsApartMay: 'Tells these respondents apart; may stay blank.',
};

/** sheet/whatComesIn.tsx */
export const whatComesInTexts = {
  whatWillImported: 'What will be imported',
  whatSheetHolds: 'What the sheet holds',
  respondents: 'respondents',
  backgroundVariables: 'background variables',
  existingCodes: 'existing codes',
  mentionsThem: 'mentions of them',
  without: (answered: number, noAnswer: number) =>
    `${counted(answered, 'answer')}, ${asCount(noAnswer)} without`,
  asked: (notAsked: number) => `, ${asCount(notAsked)} not asked`,
  settled: (settled: number) => `, ${asCount(settled)} settled`,
  valuesBackgroundVariables: 'Values of the background variables',
  stated: (stated: number) => `${asCount(stated)} stated`,
  differentValueCounted: (different: number) => counted(different, 'different value'),
};

/** sheet/sheetPage.tsx */
export const sheetPageTexts = {
  sheet: 'the sheet',
  readingSheet: 'Reading the sheet',
  cancel: 'Cancel',
  readingCalledOff: 'Reading was cancelled.',
  chooseAnotherFile: 'Choose another file',
  columnCounted: (columns: number) => counted(columns, 'column'),
  rowCounted: (rows: number) => counted(rows, 'row'),
  whatWillImported: 'What will be imported',
  importing: 'Importing …',
  import: 'Import',
  counting: 'counting …',
  importing2: 'Importing',
  isIn: (fileName: string) => `${fileName} was imported.`,
  lookWhatCameFirst:
    'See what was imported, take a first look at the words people use, or begin to code. The import can be undone in Import.',
  seeWhatImported: 'See what was imported',
};

/** sheet/importStop.tsx */
export const importStopTexts = {
  importSheet: 'Import a sheet',
  importAnotherSheet: 'Import another sheet',
  dropFileYourSurvey:
    'Drop the file that your survey service exported, or choose it: CSV or other separated text, XLSX, ODS or JSON lines, one row a respondent, up to 200 MB. Nothing is written until you have seen what it holds.',
  moreRespondentsMoreAbout:
    'More respondents, more about existing ones, or a corrected version of a sheet. Nothing is written until you have seen what would change.',
  sheetsFile: 'The sheet’s file',
  sendingFile: 'Sending the file',
  cancel: 'Cancel',
  chooseFile: 'Choose a file',
  importedYet: 'Not imported yet',
  imported: 'Imported',
  firstLook: 'Have a first look',
  respondentCounted: (allRespondents: number) => counted(allRespondents, 'respondent'),
  openQuestionCounted: (questions: number) => counted(questions, 'open question'),
  backgroundVariableCounted: (variables: number) => counted(variables, 'background variable'),
  weighted: ', weighted',
  whatImported: 'What was imported',
  question: 'Question',
  asked: 'asked',
  answered: 'answered',
  noAnswer: 'no answer',
  leave: (fileName: string) => `Leave ${fileName}`,
};

/** What encodings are called, with the languages that they are used for. */
export const encodingNames: Record<FileSettings['encoding'], string> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16 LE',
  'utf-16be': 'UTF-16 BE',
  'windows-1252': 'Windows-1252 (Western European)',
  'windows-1250': 'Windows-1250 (Central European)',
  'windows-1251': 'Windows-1251 (Cyrillic)',
  'windows-1253': 'Windows-1253 (Greek)',
  'windows-1254': 'Windows-1254 (Turkish)',
  'windows-1255': 'Windows-1255 (Hebrew)',
  'windows-1256': 'Windows-1256 (Arabic)',
  'windows-1257': 'Windows-1257 (Baltic)',
  'windows-1258': 'Windows-1258 (Vietnamese)',
  'iso-8859-2': 'ISO 8859-2 (Central European)',
  'iso-8859-5': 'ISO 8859-5 (Cyrillic)',
  'iso-8859-7': 'ISO 8859-7 (Greek)',
  'iso-8859-9': 'ISO 8859-9 (Turkish)',
  'iso-8859-15': 'ISO 8859-15 (Western European)',
  'koi8-r': 'KOI8-R (Russian)',
  macintosh: 'Mac Roman (Western European)',
  gb18030: 'GB 18030 (Chinese)',
  big5: 'Big5 (traditional Chinese)',
  shift_jis: 'Shift JIS (Japanese)',
  'euc-jp': 'EUC-JP (Japanese)',
  'euc-kr': 'EUC-KR (Korean)',
};
