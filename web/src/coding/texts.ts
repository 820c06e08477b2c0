import { asCount, asShare, counted } from '../lib/numbers.js';

/** coding/codesDrawer.tsx */
export const codesDrawerTexts = {
  codebook: 'the codebook',
  findCode: 'Find a code',
  findCode2: 'find a code …',
  withoutTheme: 'Without a theme',
  dragCodeOntoLine:
    'Drag a code onto a line, or selected words onto a code. The figures are people.',
};

/** coding/filterBar.tsx */
export const filterBarTexts = {
  allAnswers: 'all answers',
  sample: 'in the sample',
  openSample: 'open in sample',
  suggestions: 'with suggestions',
  noCodeLikely: 'no code likely',
  whereModelDisagrees: 'where the model disagrees',
  markedNoted: 'marked or noted',
  correctedSince: 'corrected since',
  noAnswer: 'no answer',
  written: 'as written',
  wholeWords: 'whole words',
  anyFormWords: 'any form of the words',
  imported: 'as imported',
  random: 'at random',
  longestFirst: 'longest first',
  shortestFirst: 'shortest first',
  similarTogether: 'similar together',
  mostTellingFirst: 'most telling first',
  surestFirst: 'most certain first',
  likeliestFirst: 'most likely first',
  mostLikeCodeFirst: 'most similar to the code first',
  show: 'show',
  whichAnswers: 'Which answers',
  found: 'found',
  howWordsFound: 'How words are found',
  order: 'order',
  order2: 'Order',
  narrow: 'Filter',
  coded: 'coded with',
  codedAll: 'coded with all of',
  orWith: 'or with',
  codedAny: 'coded with any of',
  notWith: 'not with',
  coded2: 'not coded with',
  deletedCode: 'a deleted code',
  stated: 'not stated',
  in: (find: undefined | string) => `in ${find ?? 'a deleted group'}`,
  oneAnswer: 'one answer',
  gathered: 'gathered as alike',
  allInLine: 'all in one line',
  anyOfWords: 'any of these words',
  likelyAbout: (find: undefined | string) => `likely about ${find ?? 'a deleted theme'}`,
  codes: 'Codes',
  codeNarrow: 'Code to filter by',
  one: 'in one',
  answer: 'answer',
  line: 'line',
  background: 'Background',
  background2: 'background',
  group: 'Group',
  group2: 'in a group',
  coded3: 'coded by',
  assignedTo: 'assigned to',
  anybody: 'anybody',
  sameWordsOne: 'same words as one',
  value: 'Value',
  is: 'is …',
  noLonger: 'Remove the filter',
  answersContaining: 'Answers containing',
  containing: 'containing …',
};

/** coding/suggested.tsx */
export const suggestedTexts = {
  noCodeModelsLearnt:
    'No code that the models learnt reaches its line here; they know nothing about codes with too few examples',
  suggested: 'suggested',
  nothingApplies: 'nothing applies?',
  nothingAppliesSettle: 'Nothing applies: settle it',
  suggestedProbability: (probability: number) => `suggested, probability ${asShare(probability)}`,
  probability: (probability: number) => `, probability ${asShare(probability)}`,
  proposedTakesAway: (likely: string, number: number) => `proposed${likely}; ${number} removes it`,
  proposed: 'proposed',
  takeAway: (code: string) => `Remove ${code}`,
  also: 'also',
  accept: (code: string) => `Accept ${code}`,
  refuse: (code: string) => `Refuse ${code}`,
  give: (code: string) => `Give ${code}`,
};

/** coding/useAnswerActions.ts */
export const answerActionsTexts = {
  noCodeHereYet: 'There is no code here yet.',
  codeHereAlready: 'The code is already there.',
  nothingSuggestedHere: 'Nothing is suggested here.',
  answerNearlySameOne: 'This answer is not nearly the same as the one before it.',
  goLineMarkWords: 'Go to a line, or select words with Shift and the arrow keys, to mark them.',
  markWordsNewLine: 'Select the words that the new line begins with, then split it.',
  noLineBeforeOne: 'There is no line before this one.',
  markWordsShiftArrows: 'Select words with Shift and the arrow keys first.',
  somethingAppliesTakeCodes: 'This answer has codes: remove them first, or settle with Enter.',
  noCodeProposedGive:
    'No code is proposed. Choose one by its digit or its name, or press Ctrl Enter if nothing applies.',
  noCodeYetType: 'No code yet. Type one, or press Ctrl Enter if nothing applies.',
};

/** coding/fieldMenu.tsx */
export const fieldMenuTexts = {
  whatCanDoneHere: 'What can be done here',
};

/** coding/respondentDrawer.tsx */
export const respondentDrawerTexts = {
  answers: 'the answers',
  leftEmpty: '(left empty)',
  notesRespondent: 'Notes on the respondent',
  noteRespondent: 'A note on this respondent',
};

/** coding/codeField.tsx */
export const codeFieldTexts = {
  help: (id: string) => `Help with the answer of ${id}`,
  typeCode: 'type a code',
  likelyHere: 'likely here',
  inSimilarAnswers: 'in similar answers',
  insteadWhat: 'instead of what is there, ',
  settled: ' · settled',
  codeLine: 'Code for this line',
  newCode: (search: string) => `New code “${search}”`,
  shiftEnter: 'Shift Enter',
  on: 'on “',
  wholeAnswer: 'on the whole answer',
  line: (line: number, lines: number) => `on line ${line + 1} of ${lines}`,
  line2: 'on this line',
  note: 'A note',
  noteCodesNameLinks: 'a note; [[a code’s name]] links to it',
};

/** coding/codeLabel.tsx */
export const codeLabelTexts = {
  acceptedSuggestion: 'accepted suggestion',
  acceptedBulk: 'accepted in bulk',
  cameSheet: 'imported with the sheet',
  wordsLooked: 'coded by a search for words',
  bulk: 'in bulk',
  words: 'by words',
  typical: 'typical',
  takeAway: (code: string) => `Remove ${code}`,
  anotherCodeInstead: 'Replace by another code …',
  moveMarkedPassage: 'Move to the selected passage',
  noLongerExample: 'No longer an example',
  pinExample: 'Pin as an example',
  takeAway2: 'Remove it',
};

/** coding/answerNotes.tsx */
export const answerNotesTexts = {
  notes: 'Notes',
};

/** coding/sameAnswers.tsx */
export const sameAnswersTexts = {
  answers: 'the answers',
  settled: 'settled',
  open: 'open',
  moreTakeSameWords: (ids: number, block: number) =>
    `And ${asCount(ids - 2 * block)} more: turn the filter “same words as one” off to see each of them.`,
};

/** coding/ledgerAnswer.tsx */
export const ledgerAnswerTexts = {
  answer: (about: string) => `Answer of ${about}`,
  leftEmpty: '(left empty)',
  youCodeAnswerYour:
    'This answer is in your second reading. How it was coded before is shown once you have coded it.',
  settledOpenAgain: 'Settled: open it again',
  openSettle: 'Open: settle it',
  settled: 'settled',
  open: 'open',
  wholeAnswerTwiceRespondent: 'The whole answer; twice for the respondent',
  answersSameWords: (count: number) => `${asCount(count)} answers with the same words`,
  sameWords: (count: number) => `${asCount(count)} with the same words`,
  nearlySameOneBefore: '· nearly the same as the one before',
  textCorrectedSinceCoded: '· text corrected since it was coded ',
  looked: 'looked at',
  unsure: '· unsure',
  nothingApplies: '· nothing applies',
  noAnswer: '· no answer',
};

/** coding/ledger.tsx */
export const ledgerTexts = {
  answers: 'Answers',
};

/** coding/pinBar.tsx */
export const pinBarTexts = {
  pinnedCodes: 'Pinned codes',
};

/** coding/readingBar.tsx */
export const readingBarTexts = {
  likeAnswersTogether: 'similar answers together',
  surestFirst: 'most certain first',
  leastSureFirst: 'least certain first',
  readingAnswerAnswer: 'Reading answer by answer.',
  enter: 'Enter',
  acceptsExactlyWhatShown: 'accepts exactly what is shown. ',
  left: (left: number) => `${counted(left, 'answer')} left`,
  learningWhatYouRead: ' · learning from what you read',
  order: 'Order',
  whatLeft: 'What is left',
  stopReading: 'Stop reading',
};

/** coding/codeStop.tsx */
export const codeStopTexts = {
  sampleCodeHand: 'A sample to code by hand',
  codeEvery: (words: string) => `Code every “${words}”`,
  codeEveryOne: 'Code every one …',
  answerCounted: (total: number) => counted(total, 'answer'),
  wordings: (ids: number) => ` in ${asCount(ids)} wordings`,
  sampleSettled: (settled: number, sample: number) =>
    ` · sample: ${asCount(settled)} of ${asCount(sample)} settled`,
  sample: 'Sample …',
  assign: 'Assign …',
  assignAnswers: 'Assign these answers',
  nothingAssigned:
    'No answer assigned to you matches the filters above. Whoever leads the study assigns answers.',
  whatTheySay: 'What they say',
  secondReadingCode: (toReadAgain: number) => `Second reading: ${asCount(toReadAgain)} to code`,
  codebook: 'Codebook',
  codes: 'Codes',
  answers: 'the answers',
  noAnswerLike: 'No answer matches',
  nothingFitsWhatChosen:
    'Nothing matches the filters above. Show all answers, or search for other words.',
};
