import { asCount, counted } from '../lib/numbers.js';

/** studyParts/variableCondition.tsx */
export const variableConditionTexts = {
  between: 'is between',
  any: 'is any of',
  statedNone: 'is stated, and none of',
  howAsked: (variable: string) => `How ${variable} is asked`,
  stated: 'is stated',
  stated2: 'is not stated',
  lowest: 'lowest',
  highest: 'highest',
  and: 'and',
  yes: 'Yes',
  no: 'No',
};

/** studyParts/noteRow.tsx */
export const noteRowTexts = {
  unsure: 'Unsure',
  marked: 'Marked',
  note: 'Note',
  on: 'on “',
  writeSomethingHere: 'Write something here',
  note2: 'The note',
  remove: (kind: string) => `Remove this ${kind}`,
};

/** studyParts/noteList.tsx */
export const noteListTexts = {
  addNote: 'Add the note',
};

/** studyParts/codeCombobox.tsx */
export const codeComboboxTexts = {
  codesFound: 'Codes found',
};

/** studyParts/codePicker.tsx */
export const codePickerTexts = {
  code: 'a code …',
  newCode: (search: string) => `New code “${search}”`,
};

/** studyParts/codeList.tsx */
export const codeListTexts = {
  takeAway: (code: string) => `Remove ${code}`,
};

/** studyParts/meaningProgress.tsx */
export const meaningProgressTexts = {
  begins: 'Answers are being read for meaning',
  read: (done: number, of: number) =>
    `${asCount(done)} of ${counted(of, 'answer')} read for meaning`,
  stop: 'Stop',
  allRead: 'Answers are read for meaning.',
  whatItIsFor:
    'What answers say in other words counts in suggestions, and finds first examples of codes.',
  stopped: (done: number, of: number) =>
    `${asCount(done)} of ${counted(of, 'answer')} are read for meaning.`,
  notRead: 'The answers are not read for meaning.',
  goOn: 'Go on reading',
  begin: 'Read them',
};

/** studyParts/nearestAnswers.tsx */
export const nearestAnswersTexts = {
  title: (code: string) => `Nearest in meaning to “${code}”, not learnt`,
  whatTheyAre:
    'Open answers closest to what the codebook says of it. They are no suggestions: read them to find examples.',
  none: 'No open answer is near to it.',
  read: 'read',
  readAll: (count: number) => `read all ${asCount(count)}`,
};

/** studyParts/hitsDrawer.tsx */
export const hitsDrawerTexts = {
  lineStands: 'the line it is in',
  wordsThemselves: 'the words themselves',
  wholeAnswer: 'the whole answer',
  everyPlace: 'every place',
  codedCtrlZTakes: (mentions: number) =>
    `Coded ${counted(mentions, 'place')}. Ctrl Z undoes all of it.`,
  placeCounted: (hits: number) => counted(hits, 'place'),
  in: (answers: number) => `in ${counted(answers, 'answer')}`,
  firstCanCodedOnce: (answers: number) => `; the first ${asCount(answers)} can be coded at once`,
  themTicked: (ticked: number) => `. ${asCount(ticked)} of them ticked.`,
  codeRests: 'The code applies to',
  codeAllTicked: 'Code for all ticked',
  codeAllTicked2: 'code for all ticked …',
  codeAnswer: (externalId: string) => `Code the answer of ${externalId}`,
  firstShownWhatApplied: (shown: number, answers: number) =>
    `The first ${shown} are shown; what is applied goes to all ${asCount(answers)} that are ticked.`,
  readThemCode: 'Read them in Code',
};

/** studyParts/quoteToggle.tsx */
export const quoteToggleTexts = {
  noLongerQuote: 'No longer a quote',
  pickQuoteWriteUp: 'Pick it as a quote for the write-up',
  quoted: 'quoted',
  quote: 'quote',
};

/** studyParts/assignments.tsx */
export const assignmentsTexts = {
  assignedWork: 'Assigned answers',
  settledOf: (settled: number, size: number) => `${asCount(settled)} of ${asCount(size)} settled`,
  ofQuestion: (label = '') => `${label} · `,
  assignedBy: (name: string, day: string) => `assigned by ${name}, ${day}`,
  takeBack: 'Remove',
};
