import { asCount, asPercent, asShare, counted } from '../parts/numbers.js';

/** coding/codesDrawer.tsx */
export const codesDrawerTexts = {
  codebook: 'the codebook',
  findCode: 'Find a code',
  findCode2: 'find a code …',
  withoutTheme: 'Without a theme',
  dragCodeOntoLine:
    'Drag a code onto a line, or words that are marked onto a code. Figures are people.',
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
  surestFirst: 'surest first',
  likeliestFirst: 'likeliest first',
  mostLikeCodeFirst: 'most like the code first',
  show: 'show',
  whichAnswers: 'Which answers',
  found: 'found',
  howWordsFound: 'How words are found',
  order: 'order',
  order2: 'Order',
  narrow: 'Narrow',
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
  likelyAbout: (find: undefined | string) => `likely about ${find ?? 'a deleted theme'}`,
  codes: 'Codes',
  codeNarrow: 'Code to narrow by',
  one: 'in one',
  answer: 'answer',
  line: 'line',
  background: 'Background',
  background2: 'background',
  group: 'Group',
  group2: 'in a group',
  coded3: 'coded by',
  anybody: 'anybody',
  sameWordsOne: 'same words as one',
  value: 'Value',
  is: 'is …',
  noLonger: 'No longer',
  answersContaining: 'Answers containing',
  containing: 'containing …',
};

/** coding/hitsDrawer.tsx */
export const hitsDrawerTexts = {
  lineStands: 'the line that it stands in',
  wordsThemselves: 'the words themselves',
  wholeAnswer: 'the whole answer',
  everyPlace: 'every place',
  codedCtrlZTakes: (mentions: number) =>
    `Coded ${counted(mentions, 'place')}. Ctrl Z takes all of it back.`,
  placeCounted: (hits: number) => counted(hits, 'place'),
  in: (answers: number) => `in ${counted(answers, 'answer')}`,
  firstCanCodedOnce: (answers: number) => `; the first ${asCount(answers)} can be coded at once`,
  themTicked: (ticked: number) => `. ${asCount(ticked)} of them ticked.`,
  codeRests: 'The code rests on',
  codeAllTicked: 'Code for all that is ticked',
  codeAllTicked2: 'code for all ticked …',
  codeAnswer: (externalId: string) => `Code the answer of ${externalId}`,
  firstShownWhatApplied: (shown: number, answers: number) =>
    `The first ${shown} are shown; what is applied goes to all ${asCount(answers)} that are ticked.`,
};

/** coding/suggested.tsx */
export const suggestedTexts = {
  noCodeModelsLearnt:
    'No code that the models learnt reaches its line here; codes with too few examples they know nothing of',
  suggested: 'suggested',
  nothingApplies: 'nothing applies?',
  nothingAppliesSettle: 'Nothing applies: settle it',
  suggestedProbability: (probability: number) => `suggested, probability ${asShare(probability)}`,
  probability: (probability: number) => `, probability ${asShare(probability)}`,
  proposedTakesAway: (likely: string, number: number) =>
    `proposed${likely}; ${number} takes it away`,
  proposed: 'proposed',
  takeAway: (code: string) => `Take ${code} away`,
  also: 'also',
};

/** coding/useDeeds.ts */
export const useDeedsTexts = {
  noCodeHereYet: 'There is no code here yet.',
  codeHereAlready: 'This code is here already.',
  nothingSuggestedHere: 'Nothing is suggested here.',
  answerNearlySameOne: 'This answer is not nearly the same as the one before it.',
  goLineMarkWords: 'Go to a line, or mark words with Shift and the arrows, to mark them.',
  markWordsNewLine: 'Mark the words that the new line begins with, then part it.',
  noLineBeforeOne: 'There is no line before this one.',
  markWordsShiftArrows: 'Mark words with Shift and the arrows first.',
  somethingAppliesTakeCodes: 'Something applies: take its codes away first, or settle with Enter.',
  noCodeProposedGive:
    'No code is proposed. Give one by its digit or its name, or press Ctrl Enter if nothing applies.',
  noCodeYetType: 'No code yet. Type one, or press Ctrl Enter if nothing applies.',
};

/** coding/fieldMenu.tsx */
export const fieldMenuTexts = {
  markComeBack: 'Mark it, to come back to it',
  altM: 'Alt M',
  writeNote: 'Write a note',
  altN: 'Alt N',
  markUnmarkUnsure: 'Mark or unmark as unsure',
  altU: 'Alt U',
  anotherCodeInsteadLast: 'Another code instead of the last',
  altX: 'Alt X',
  lastCodeMarkedWords: 'Last code to the marked words',
  altP: 'Alt P',
  lastCodeTypicalExample: 'Last code: typical example on or off',
  altE: 'Alt E',
  acceptLikeliestSuggestion: 'Accept the likeliest suggestion',
  alt: 'Alt A',
  refuseLikeliestSuggestion: 'Refuse the likeliest suggestion',
  altO: 'Alt O',
  codeAnswerBefore: 'Code it as the answer before',
  altB: 'Alt B',
  newLineMarkedWords: 'New line from the marked words',
  altS: 'Alt S',
  joinLineBefore: 'Join with the line before',
  altJ: 'Alt J',
  nothingApplies: 'Nothing applies',
  ctrlEnter: 'Ctrl Enter',
  respondent: 'The respondent',
  altR: 'Alt R',
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
  cameSheet: 'came with the sheet',
  wordsLooked: 'by words that were looked for',
  bulk: 'in bulk',
  words: 'by words',
  typical: 'typical',
  takeAway: (code: string) => `Take ${code} away`,
  anotherCodeInstead: 'Another code instead …',
  moveMarkedPassage: 'Move to the marked passage',
  noLongerExample: 'No longer an example',
  pinExample: 'Pin as an example',
  takeAway2: 'Take it away',
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
    `And ${asCount(ids - 2 * block)} more: take “same words as one” off to see each in the ledger.`,
};

/** coding/ledgerAnswer.tsx */
export const ledgerAnswerTexts = {
  answer: (about: string) => `Answer of ${about}`,
  leftEmpty: '(left empty)',
  youCodeAnswerYour:
    'You are to code this answer in your second reading. How it was coded is shown when you have.',
  settledOpenAgain: 'Settled: open it again',
  openSettle: 'Open: settle it',
  settled: 'settled',
  open: 'open',
  wholeAnswerTwiceRespondent: 'The whole answer; twice for the respondent',
  answersSameWords: (count: number) => `${asCount(count)} answers of the same words`,
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
  likeAnswersTogether: 'like answers together',
  surestFirst: 'the surest first',
  leastSureFirst: 'the least sure first',
  readingAnswerAnswer: 'Reading answer by answer.',
  enter: 'Enter',
  acceptsExactlyWhatShown: 'accepts exactly what is shown. ',
  left: (left: number) => `${counted(left, 'answer')} left`,
  learningWhatYouRead: ' · learning from what you read',
  order: 'Order',
  whatLeft: 'What is left',
  stopReading: 'Stop reading',
};

/** coding/saturationChart.tsx */
export const saturationChartTexts = {
  afterTwentySettledAnswers:
    'After twenty settled answers it is shown here whether new codes still appear.',
  newCodes: 'New codes',
  newCodesPerFurther: 'New codes per further ten answers',
  newCodesEachTen: (answers: number, newCodes: string) =>
    `New codes in each ten of ${answers} settled answers: ${newCodes}`,
  firstAnswers: 'first answers',
  latest: (answers: number) => `latest of ${answers}`,
  howManyCodesGiven: (atLeast: number, codes: number) =>
    ` By how many codes were given only once, about ${asCount(atLeast - codes)} more may turn up.`,
  farAfterMoreAnswers: (codes: number, unit: number, base: number, run: number, newCodes: number) =>
    `${counted(codes, 'code')} so far. After ${unit * (base + run - newCodes)} more answers it can be said whether new ones have become rare.`,
  whatFirstBrought: (ratio: number, unit: number, base: number) =>
    `${asPercent(ratio, 1)} of what the first ${unit * base} brought`,
  lastAnswersBroughtNew: (
    unit: number,
    run: number,
    value: number,
    share: string,
    unseen: string,
  ) =>
    `The last ${unit * run} answers brought ${counted(value, 'new code')} (${share}): new codes have become rare, it is time to organise them.${unseen}`,
  lastAnswersBroughtNewCodes: (
    unit: number,
    run: number,
    value: number,
    share: string,
    unseen: string,
  ) =>
    `The last ${unit * run} answers brought ${counted(value, 'new code')} (${share}): new codes are still appearing, keep adding them.${unseen}`,
};

/** coding/sampleDrawer.tsx */
export const sampleDrawerTexts = {
  random: 'at random',
  everyAnswerSameChance:
    'Every answer has the same chance. Only such a sample may carry estimates.',
  randomWithinGroups: 'at random within groups',
  everyCategoryBackgroundVariable: 'Every category of a background variable has its share.',
  mostTelling: 'most telling',
  whatModelLeastSure:
    'What the model is least sure of, unlike each other. It teaches most and may carry no estimates.',
  samplesDrawnEverybodyWho:
    'Samples are drawn from everybody who answered, so that they can carry estimates. You are looking at a group only.',
  lookEverybody: 'Look at everybody',
  of: (settled: number, drawn: number) => `${asCount(settled)} of ${asCount(drawn)}`,
  answersDrawnFarSettled: (random: number) =>
    `answers drawn so far are settled, ${counted(random, 'of them', 'of them')} drawn at random. What is drawn now comes on top.`,
  howDrawn: 'How they are drawn',
  kind: 'kind',
  groups: 'groups by',
  howMany: 'How many',
  of2: (round: number, answered: number) => `${round} % of ${asCount(answered)}`,
  shareCountedAnswersKnown: (size: number, toFixed: string) =>
    `A share counted in ${asCount(size)} answers is known within ± ${toFixed} points (95 %, at worst).`,
  points: (round: number, sampleSizeFor: number) => `± ${round} points: ${asCount(sampleSizeFor)}`,
  drawCodeThem: (size: number) => `Draw ${counted(size, 'answer')} and code them`,
  secondReading: 'A second reading',
  whatSettledShowsHow: 'of what is settled shows how far the coding depends on who does it.',
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
  secondReadingCode: (toReadAgain: number) => `Second reading: ${asCount(toReadAgain)} to code`,
  codebook: 'Codebook',
  codes: 'Codes',
  answers: 'the answers',
  noAnswerLike: 'No answer is like that',
  nothingFitsWhatChosen:
    'Nothing fits what is chosen above. Show all answers, or look for other words.',
};
