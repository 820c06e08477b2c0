import { asCount, asPercent, counted } from '../lib/numbers.js';

/** The last run of answers that were coded, as saturation sees it. */
interface LastRun {
  unit: number;
  run: number;
  value: number;
  share: string;
  unseen: string;
}

/** sampling/sampleDrawer.tsx */
export const sampleDrawerTexts = {
  random: 'at random',
  everyAnswerSameChance:
    'Every answer has the same chance. Estimates can only be based on such a sample.',
  randomWithinGroups: 'at random within groups',
  everyCategoryBackgroundVariable: 'Each category of a background variable gets its share.',
  mostTelling: 'most telling',
  whatModelLeastSure:
    'What the models are least sure of, and unlike each other. It teaches them most; estimates cannot be based on it.',
  firstExamples: 'first examples',
  whatNearestCodesWithout:
    'What is nearest in meaning to codes that have too few examples, some for each. Estimates cannot be based on it.',
  samplesDrawnEverybodyWho:
    'Samples are drawn from everybody who answered, so that estimates can be based on them. You are looking at a group only.',
  lookEverybody: 'Look at everybody',
  of: (settled: number, drawn: number) => `${asCount(settled)} of ${asCount(drawn)}`,
  answersDrawnFarSettled: (random: number) =>
    `answers drawn so far are settled, ${counted(random, 'of them', 'of them')} drawn at random. What you draw now is added.`,
  howDrawn: 'How they are drawn',
  kind: 'kind',
  groups: 'groups by',
  howMany: 'How many',
  of2: (round: number, answered: number) => `${round}% of ${asCount(answered)}`,
  shareCountedAnswersKnown: (size: number, toFixed: string) =>
    `A share counted in ${asCount(size)} answers is known within ± ${toFixed} points (95%, at worst).`,
  points: (round: number, sampleSizeFor: number) => `± ${round} points: ${asCount(sampleSizeFor)}`,
  drawCodeThem: (size: number) => `Draw ${counted(size, 'answer')} and code them`,
  secondReading: 'A second reading',
  whatSettledShowsHow: 'of what is settled shows how far the coding depends on who does it.',
};

/** sampling/saturationChart.tsx */
export const saturationChartTexts = {
  afterTwentySettledAnswers:
    'After twenty settled answers, this shows whether new codes still appear.',
  newCodes: 'New codes',
  newCodesPerFurther: 'New codes per further ten answers',
  newCodesEachTen: (answers: number, newCodes: string) =>
    `New codes in each ten of ${answers} settled answers: ${newCodes}`,
  firstAnswers: 'first answers',
  latest: (answers: number) => `latest of ${answers}`,
  howManyCodesGiven: (atLeast: number, codes: number) =>
    ` Judging by how many codes were used only once, about ${asCount(atLeast - codes)} more may turn up.`,
  farAfterMoreAnswers: ({
    codes,
    unit,
    base,
    run,
    newCodes,
  }: {
    codes: number;
    unit: number;
    base: number;
    run: number;
    newCodes: number;
  }) =>
    `${counted(codes, 'code')} so far. After ${unit * (base + run - newCodes)} more answers it can be said whether new ones have become rare.`,
  whatFirstBrought: (ratio: number, unit: number, base: number) =>
    `${asPercent(ratio, 1)} of what the first ${unit * base} brought`,
  lastAnswersBroughtNew: ({ unit, run, value, share, unseen }: LastRun) =>
    `The last ${unit * run} answers brought ${counted(value, 'new code')} (${share}): new codes have become rare, it is time to organise them.${unseen}`,
  lastAnswersBroughtNewCodes: ({ unit, run, value, share, unseen }: LastRun) =>
    `The last ${unit * run} answers brought ${counted(value, 'new code')} (${share}): new codes are still appearing, keep adding them.${unseen}`,
};

/** sampling/assignDrawer.tsx */
export const assignDrawerTexts = {
  whatTheyWillSee:
    'The answers that are listed now are assigned in their order, with all others of the same words. A coder sees those alone; everybody else sees all answers as before.',
  whoCodesThem: 'Who codes them',
  nameAndRole: (name: string, role: string) => `${name} (${role})`,
  nobodyElse: 'Nobody else codes in this study. ',
  inviteSomebody: 'Invite somebody',
  howMany: 'How many',
  ofThoseListed: (listed: number) => `of ${counted(listed, 'answer')} listed`,
  assign: (size: number) => `Assign ${counted(size, 'answer')}`,
  assigned: (size: number, name: string) => `${counted(size, 'answer')} assigned to ${name}.`,
};
