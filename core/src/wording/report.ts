/** report/words.ts */
export const wordsTexts = {
  peopleSettledAnswer: 'people with a settled answer',
  peopleWhoAnswered: 'people who answered',
  peopleWhoAsked: 'people who were asked',
  allMentions: 'all mentions',
  holmCorrectedWithinRow: 'Holm-corrected within a row',
  benjaminiHochbergCorrectedWithin: 'Benjamini–Hochberg-corrected within a row',
  corrected: 'not corrected',
  tested: 'not tested',
  everybodyDecided: 'everybody, decided',
  everybodyEstimated: 'everybody, estimated',
  randomSampleReadPeople: 'the random sample, read by people',
  allSettledHand: 'all settled by hand',
  frozenBeforeTablesOne:
    'Frozen before tables had one rule: each code counts where its answers were settled, or all of its suggestions decided.',
  countsEverybodyAllEvery: (who: string) =>
    `Counts everybody: all ${who}. Every answer is settled.`,
  countsWhatDecidedAll: (who: string, byModel: number, count: string) =>
    `Counts what is decided of all ${who}. Where it is not decided for somebody whether they mention a code, its row says “at least”, and of how many that is open.${byModel > 0 ? ` What the models decided (${count}) is not counted.` : ''}`,
  estimatesShareAmongAll: (who: string, basesOfEstimates: string, round: number) =>
    `Estimates the share among all ${who}. ${basesOfEstimates} These are estimates with ${round}% intervals, not counts.`,
  countsRandomSampleRead: (count: string, count2: string) =>
    `Counts the random sample, read by people: ${count} answers of the ${count2} drawn, and no others.`,
  countsAnswersSettledHand: ({
    count,
    count2,
    isFinished,
    settled,
    answered,
    isAllSettled,
  }: {
    count: string;
    count2: string;
    isFinished: boolean;
    settled: number;
    answered: number;
    isAllSettled: boolean;
  }) =>
    `Counts the ${count} answers that are settled by hand, of ${count2}.${isFinished || settled === answered ? '' : isAllSettled ? ' All of them were drawn at random.' : ' They are not a random sample: who is among them depends on which answers were read.'}`,
  answersQuestions: (count: string, count2: string) => `${count} answers to ${count2} questions`,
  whoAnswered: (count: string) => `${count} who answered`,
  modelsReadAllAnswers: (each: string, each2: string) =>
    `Models read all ${each} answers, and what they say is corrected by ${each2} of them that were drawn at random and read (difference estimator).`,
  answersSettledHandOther: (count: string, count2: string, count3: string) =>
    `${count} answers are settled by hand; for the other ${count2}, what the models say is corrected by ${count3} of them that were drawn at random and read.`,
  modelsReadAllAnswersWhat: (count: string, count2: string) =>
    `Models read all ${count} answers, and what they say is corrected by ${count2} that were drawn at random and read (difference estimator).`,
  restsAnswersDrawnRandom: (count: string) =>
    `It rests on ${count} answers that were drawn at random and read.`,
};
