import { asCount, asDate, asPercent, counted } from '../parts/numbers.js';

/** agreement/codeTable.tsx */
export const codeTableTexts = {
  agreeWell: 'agree well',
  agreeTooLittle: 'agree too little',
  tooRareSay: 'too rare to say',
  codeCode: 'Code by code',
  themeTheme: 'Theme by theme',
  rows: 'rows',
  codes: 'codes',
  themesAnyCodeTheirs: 'themes: any code of theirs',
  order: 'in the order of',
  leastAgreement: 'least agreement',
  codebook: 'the codebook',
  agreement: 'Agreement',
  code: 'Code',
  theme: 'Theme',
  both: 'both',
  only: (first: string) => `only ${first}`,
  only2: (second: string) => `only ${second}`,
  neither: 'neither',
  agreed: 'agreed',
  cohensKappa95Interval: 'Cohen’s kappa with its 95% interval',
  kappa: 'kappa',
  krippendorffsAlpha: 'Krippendorff’s alpha',
  alpha: 'alpha',
  gwetsAc1StaysReadable: 'Gwet’s AC1: stays readable where a code is rare',
  ac1: 'AC1',
  alphaAllCodings: (coders: number) => `alpha of all ${coders} codings`,
  alphaAll: 'alpha, all',
  state: 'state',
  onlyAnswersWhichDiffer: 'Only the answers in which they differ on this',
  answersEachKappaAlpha: (n: number) =>
    `Of ${asCount(n)} answers each. Kappa and alpha fall where a code is rare even if the two hardly differ: look at AC1 and the counts too. “Agree well” is an alpha from .80, “tentative” from .667; under five uses nothing is said.`,
  neitherGaveListed: (unused: number, by: string) =>
    ` ${counted(unused, by)} that neither gave ${unused === 1 ? 'is' : 'are'} not listed.`,
};

/** agreement/differing.tsx */
export const differingTexts = {
  doesNot: 'does not',
  whereDiffer: 'Where they differ',
  discussed: (decided: number, all: number) => `${asCount(decided)} of ${asCount(all)} discussed`,
  showOtherCodesToo: 'Show those on other codes too',
  whatYouDecideHere:
    'What you decide here is put into the coding, and can be undone. Agreement stays as it was measured before you discussed them.',
  both: 'both',
  only: (names: string) => `only ${names}`,
};

/** agreement/compared.tsx */
export const comparedTexts = {
  workbookXlsx: 'Workbook (XLSX)',
  agreementCodeCode: 'agreement code by code',
  csv: 'CSV',
  anyOtherProgram: 'for any other program',
  comparison: 'the comparison',
  twice: (reader: string) => `${reader}, twice`,
  answersDrawnRandomSettled: (reading: number, drawnFrom: number, drawnAt: string) =>
    `${asCount(reading)} answers, drawn at random from ${asCount(drawnFrom)} settled ones, ${asDate(drawnAt)}`,
  onePersonTwiceShows:
    'One person twice: this shows how steady they are, not how far two people agree.',
  allSecondReadings: 'all second readings',
  files: 'Files',
  exactlySameCodes: 'exactly the same codes',
  of: (count: number, n: number) =>
    `${asPercent(count / n, n)} (${asCount(count)} of ${asCount(n)})`,
  n95Interval: (interval: string) => `95% interval ${interval}`,
  cohensKappaAllCodes: 'Cohen’s kappa, all codes',
  eachCodeEachAnswer: 'each code of each answer is one decision; interval over answers',
  krippendorffsAlphaSetsCodes: 'Krippendorff’s alpha, sets of codes',
  partlySameCountsPartly: 'partly the same counts partly (MASI distance)',
  alphaAllCodings: (coders: number) => `alpha of all ${asCount(coders)} codings`,
  firstOneEverySecond: 'the first one and every second reading of these answers',
  bothTimesEveryAnswer: 'Both times every answer got the same codes.',
  differAnswersDiscussThem: (differing: number, n: number) =>
    `They differ in ${asCount(differing)} of ${asCount(n)} answers: discuss them below, and sharpen the definitions of codes that come up again and again.`,
  wholeTwoReadingsAgree: (rest: string) =>
    `On the whole the two readings agree well enough to rest findings on the coding. ${rest}`,
  wholeTwoReadingsAgreeWell: (rest: string) =>
    `On the whole the two readings agree well enough for tentative findings only. ${rest}`,
  wholeTwoReadingsAgreeToo: (rest: string) =>
    `On the whole the two readings agree too little to rest findings on the coding as it is. ${rest}`,
  tooFewCodesGiven: (rest: string) => `Too few codes were given to say how far they agree. ${rest}`,
};

/** agreement/drawReading.tsx */
export const drawReadingTexts = {
  noAnswerSettledYet: 'No answer is settled yet, so there is nothing to read a second time. ',
  codeSomeAnswersFirst: 'Code some answers first.',
  drawOne: 'Draw one',
  codedOnceMore: 'coded once more by',
  nobodyElseWorksStudy:
    'Nobody else works in this study. Your own second reading, best some days after the first, shows how steady you are; for how far two people agree, ',
  inviteSomebody: 'invite somebody',
  whichAnswers: 'which answers',
  drawnRandom: 'drawn at random',
  same: (one: number, reader: string, drawnAt: string) =>
    `the same ${asCount(one)} as ${reader}, ${asDate(drawnAt)}`,
  howMany: 'How many',
  somebodyElseSettledCome: (settled: number) =>
    `of ${counted(settled, 'settled answer')}; those that somebody else settled come first`,
  drawnEverybodysSettledAnswers: 'drawn from everybody’s settled answers, not from the group alone',
  draw: (same: undefined | number, size: number) => `Draw ${counted(same ?? size, 'answer')}`,
};

/** agreement/readAgain.tsx */
export const readAgainTexts = {
  findCodeChooseAmong: 'find a code; ↑ ↓ choose among those found',
  applyCodeFound: 'apply the code that is found',
  applyCodePinnedUnder: 'apply the code pinned under the key',
  backspaceNothingTyped: 'Backspace (nothing typed)',
  takeLastCodeAway: 'take the last code away',
  enterNothingTyped: 'Enter (nothing typed)',
  codesGoNextAnswer: 'these are its codes: go to the next answer',
  ctrlEnter: 'Ctrl Enter',
  nothingAppliesGoNext: 'nothing applies: go to the next answer',
  nothingTyped: '↑ ↓ (nothing typed)',
  answerBeforeNextAnswer: 'answer before, next answer',
  answers: 'the answers',
  yourSecondReading: 'Your second reading',
  howAnswersCodedShown: 'How these answers were coded is not shown until you are through.',
  coded: (read: number, answers: number) => `${asCount(read)} of ${asCount(answers)} coded`,
  excludesComparisonWhatCoded: 'Excludes from the comparison what is not coded yet',
  endHereCompare: 'End here and compare',
  allSecondReadings: 'all second readings',
  answersSecondReading: 'Answers of the second reading',
  nothingApplies: 'nothing applies',
  codeHereAlready: 'This code is here already.',
  somethingAppliesTakeCodes: 'Something applies: take its codes away first, or go on with Enter.',
  noCodeYetType: 'No code yet. Type one, or press Ctrl Enter if nothing applies.',
  codeAnswer: 'Code for this answer',
};

/** agreement/secondReadings.tsx */
export const secondReadingsTexts = {
  secondReadings: 'the second readings',
  stillCoding: (reader: string) => `${reader} is still coding`,
  answersCodedHowFar: (read: number, reading: number) =>
    `${asCount(read)} of ${asCount(reading)} answers are coded. How far the two readings agree is shown when all are: whoever knew it earlier could not help coding by it.`,
  allSecondReadings: 'all second readings',
  secondReadings2: 'Second readings',
  someSettledAnswersDrawn:
    'Some of the settled answers, drawn at random, are coded once more by somebody who does not see how they were coded. That shows how far the coding depends on who does it. It is kept apart and counts nowhere. Until they have coded an answer they do not see how it was coded, in Code either.',
  onceMore: 'once more',
  codedDrawnSettled: (read: number, one: number, drawnFrom: number, drawnAt: string) =>
    `${asCount(read)} of ${asCount(one)} coded · drawn from ${asCount(drawnFrom)} settled, ${asDate(drawnAt)}`,
  seeHowFarAgree: 'See how far they agree',
  codeLeft: (one: number, read: number) => `Code the ${asCount(one - read)} left`,
  underWay: 'Under way',
  takeReadingAway: (reader: string) => `Take the reading by ${reader} away`,
  takeAway: 'Take away',
};
