import { asCount, asDate, asPercent, counted, plural } from '../lib/numbers.js';

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
  cohensKappa95Interval:
    'Cohen’s kappa with its 95% interval (bootstrapped over answers where a code is rare)',
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
    `Each row is based on ${asCount(n)} answers. Kappa and alpha fall when a code is rare even if the two coders hardly differ: look at AC1 and the counts too. “Agree well” means an alpha of .80 or more, “tentative” .667 or more; codes used fewer than five times get no verdict.`,
  neitherGaveListed: (unused: number, by: string) =>
    ` ${counted(unused, by)} that neither used ${plural(unused, 'is', 'are')} not listed.`,
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
  whichAnswers: ({
    size,
    drawn,
    drawnFrom,
    drawnAt,
  }: {
    size: number;
    drawn: number | null;
    drawnFrom: number;
    drawnAt: string;
  }) =>
    drawn !== null && drawn > size
      ? `${counted(size, 'answer')}, the first coded of ${asCount(drawn)} that were drawn at random from ${asCount(drawnFrom)} settled ones, ${asDate(drawnAt)}. Ended early, so they are no longer a random sample.`
      : `${counted(size, 'answer')}, drawn at random from ${asCount(drawnFrom)} settled ones, ${asDate(drawnAt)}`,
  onePersonTwiceShows:
    'The same person coded twice: this shows how consistent they are, not how far two people agree.',
  comparedWith: 'Compared with',
  whoSettledFirst: (names: string) => `${names}, who settled them first`,
  otherReading: (reader: string, answers: number) =>
    `the second reading by ${reader} (${counted(answers, 'answer')} in both)`,
  allSecondReadings: 'all second readings',
  files: 'Files',
  exactlySameCodes: 'exactly the same codes',
  of: (count: number, n: number) =>
    `${asPercent(count / n, n)} (${asCount(count)} of ${asCount(n)})`,
  n95Interval: (interval: string) => `95% interval ${interval}`,
  cohensKappaAllCodes: 'Cohen’s kappa, all codes',
  eachCodeEachAnswer: 'each code of each answer is one decision; interval over answers',
  krippendorffsAlphaSetsCodes: 'Krippendorff’s alpha, sets of codes',
  partlySameCountsPartly: 'sets that overlap count as partial agreement (MASI distance)',
  alphaAllCodings: (coders: number) => `alpha of all ${asCount(coders)} codings`,
  firstOneEverySecond: 'the first one and every second reading of these answers',
  bothTimesEveryAnswer: 'Every answer got the same codes both times.',
  differAnswersDiscussThem: (differing: number, n: number) =>
    `They differ in ${asCount(differing)} of ${asCount(n)} answers: discuss them below, and sharpen the definitions of codes that come up again and again.`,
  wholeTwoReadingsAgree: (rest: string) =>
    `Overall, the two readings agree well enough to base findings on the coding. ${rest}`,
  wholeTwoReadingsAgreeWell: (rest: string) =>
    `Overall, the two readings agree well enough for tentative findings only. ${rest}`,
  wholeTwoReadingsAgreeToo: (rest: string) =>
    `Overall, the two readings agree too little to base findings on the coding as it is. ${rest}`,
  tooFewCodesGiven: (rest: string) =>
    `Too few codes were applied to say how far they agree. ${rest}`,
  and: (inWords: string, reader: string) => `${inWords} and ${reader}`,
};

/** agreement/drawReading.tsx */
export const drawReadingTexts = {
  noAnswerSettledYet: 'No answer is settled yet, so there is nothing to read a second time. ',
  codeSomeAnswersFirst: 'Code some answers first.',
  drawOne: 'Draw one',
  codedOnceMore: 'coded again by',
  nobodyElseWorksStudy:
    'You are the only member of this team. Your own second reading, ideally some days after the first, shows how consistent you are; to see how far two people agree, ',
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
  typeCode: 'type a code',
  answers: 'the answers',
  yourSecondReading: 'Your second reading',
  howAnswersCodedShown: 'How these answers were coded before is hidden until you have finished.',
  coded: (read: number, answers: number) => `${asCount(read)} of ${asCount(answers)} coded`,
  excludesComparisonWhatCoded: 'Answers not coded yet are excluded from the comparison',
  endHereCompare: 'End here and compare',
  allSecondReadings: 'all second readings',
  answersSecondReading: 'Answers of the second reading',
  nothingApplies: 'nothing applies',
  codeHereAlready: 'The code is already there.',
  somethingAppliesTakeCodes: 'This answer has codes: remove them first, or continue with Enter.',
  noCodeYetType: 'No code yet. Type one, or press Ctrl Enter if nothing applies.',
  codeAnswer: 'Code for this answer',
};

/** agreement/secondReadings.tsx */
export const secondReadingsTexts = {
  secondReadings: 'the second readings',
  stillCoding: (reader: string) => `${reader} is still coding`,
  answersCodedHowFar: (read: number, reading: number) =>
    `${asCount(read)} of ${asCount(reading)} answers are coded. Agreement is shown when all are coded, so that knowing it cannot influence the coding.`,
  allSecondReadings: 'all second readings',
  secondReadings2: 'Second readings',
  someSettledAnswersDrawn:
    'A random selection of the settled answers is coded again by somebody who does not see how they were coded. This shows how far the coding depends on the coder. It is kept apart and changes no figure. Until they have coded an answer, its first codes are hidden from them in Code as well.',
  onceMore: 'again',
  codedDrawnSettled: (read: number, one: number, drawnFrom: number, drawnAt: string) =>
    `${asCount(read)} of ${asCount(one)} coded · drawn from ${asCount(drawnFrom)} settled, ${asDate(drawnAt)}`,
  seeHowFarAgree: 'See how far they agree',
  codeLeft: (one: number, read: number) => `Code the ${asCount(one - read)} left`,
  underWay: 'In progress',
  takeReadingAway: (reader: string) => `Remove the reading by ${reader}`,
  takeAway: 'Remove',
  allCoded: 'All of these are coded',
  othersCompare: (size: number) =>
    `You have coded ${counted(size, 'answer')} a second time. Whoever leads the study sees how far that agrees with the first coding.`,
  noneForYou: 'Nobody has asked you to code answers of this question a second time.',
};
