import { plural } from '@yellow-thread/core/text';

/** draftMethod.ts */
export const draftMethodTexts = {
  told: (many: number, count: string, how: string) =>
    `${count} ${plural(many, 'was', 'were')} ${how}`,
  cohensKappaOverAll: (toFixed: string, ends: undefined | string) =>
    `Cohen’s kappa over all codes is ${toFixed}${ends ? ` (95% interval ${ends})` : ''}`,
  krippendorffsAlphaSetsCodes: (toFixed: string) =>
    `Krippendorff’s alpha of the sets of codes (MASI distance) is ${toFixed}`,
  samePerson: 'the same person',
  codedAgain: (one: {
    label: string;
    coded: string;
    drawnFrom: string;
    drawn: string | null;
    reader: string;
  }) =>
    `${one.label}: ${one.coded} of ${one.drawnFrom} settled answers, ${one.drawn ? `the first coded of ${one.drawn} drawn at random (ended early, so no longer a random sample)` : 'drawn at random'}, were coded again by ${one.reader} without the first codes in view;`,
  gotExactlySameCodes: (count: string, percent: string, coefficients: number, inWords: string) =>
    `${count} (${percent}) got exactly the same codes both times${coefficients > 0 ? `; ${inWords}` : ''}.`,
  readModelsSuggestionsView: (answers: string, assisted: number) =>
    `${answers} ${plural(assisted, 'was', 'were')} read with the models’ suggestions in view.`,
  personCountsOnceCode:
    'A person counts once in a code and once in a theme, however often they mention it.',
  percentages: (base: string, weighted: boolean) =>
    `Percentages are of ${base}${weighted ? '; they are weighted, numbers of people are not' : ''}.`,
  differencesTested: (test: string) => `Differences are tested: ${test}.`,
  codedHand: 'coded by hand',
  suggestedTrainedModelRead: 'suggested by a trained model, read and accepted',
  acceptedBulk: 'accepted in bulk',
  importedSheet: 'imported with the sheet',
  codedSearchWords: 'coded by a search for words',
  noMentionCountedYet: 'No mention is counted yet.',
  oneMentionCounted: (told: string) => `The one mention counted was ${told}.`,
  allMentionsCounted: (count: string, told: string) =>
    `All ${count} mentions counted were ${told}.`,
  mentionsCounted: (count: string, format: string) =>
    `Of the ${count} mentions counted, ${format}.`,
  everySuggestionDecidedAnswers: (names: string, suggested: number, toFixed: string) =>
    `For ${names}, every suggestion was decided, and answers without one count as not mentioning ${plural(suggested, 'it', 'them')}; the models expected ${toFixed} mentions among these.`,
  noModelAnswersSearched: (names: string, searched: number) =>
    `${names} had no model: answers were searched for ${plural(searched, 'it', 'them')}, and the rest counts as not mentioning ${plural(searched, 'it', 'them')}.`,
  whatBulkDrawnRandom: ({
    side,
    code,
    answers,
    read,
    count,
    interval,
  }: {
    side: string;
    code: string;
    answers: string;
    read: number;
    count: string;
    interval: string;
  }) =>
    `Of what was ${side} in bulk for ${code}, ${answers} drawn at random ${plural(read, 'was', 'were')} read: the code applied to ${count} (95% interval of the share ${interval}), before anything was corrected.`,
  answersSettled: (count: string, count2: string, isRandom: boolean) =>
    `${count} of ${count2} answers are not settled.${isRandom ? '' : ' Those that are were not drawn at random, so that the rest may differ from them.'}`,
  figuresLeastCanStill:
    'figures with “at least” can still rise: it is not decided for everybody whether they mention these.',
  fewerAnswers: (lowBase: number, format: string) => `fewer than ${lowBase} answers in ${format}.`,
  whatAcceptedBulkSpot:
    'what was accepted in bulk has not been spot-checked, so it is not known how much of it is right.',
  twoReadingsAgreeToo: (label: string, inWords: string, low: number) =>
    `${label}: the two readings agree too little on ${inWords} to rest a finding on ${plural(low, 'it', 'them')} alone.`,
  howFarCodersAgree: 'How far the coders agree has not been measured here.',
  onePersonCodedNo: 'One person coded, so that there is no second reading to compare with.',
  secondReadingPersonWho:
    'The second reading is by the person who coded first: it shows how consistent they are, not how far two people agree.',
};

/** draft.ts */
export const draftTexts = {
  method: 'Method',
  limits: 'Limits',
  peopleAskedAnswered: (counting: string, count: string, count2: string) =>
    `${counting} ${count} people were asked and ${count2} answered.`,
  nobodyMentionsCodeYet: 'Nobody mentions a code yet.',
  otherDifferences: 'other differences',
  interval: (round: number) => `${round}% interval `,
  whichCanFarOff: ', which can be far off on so few people',
  mentionedEstimated: ' is mentioned by an estimated ',
  of: (base: string) => ` of ${base} (`,
  mentionedLeast: ' is mentioned by at least ',
  decided: ' it is not decided).',
  mentioned: ' is mentioned by ',
  consists: ' It consists of ',
  least: 'at least ',
  more: (more: number) => ` and ${more} more.`,
  noRowDiffersSignificantly: (across: null | string, test: string) =>
    `No row differs significantly by ${across ?? 'column'} (${test}).`,
  otherSignificantDifferences: 'Other significant differences: ',
  moreRows: (more: number, test: string) => `(and ${more} more rows; ${test}.)`,
  mentionedSignificantly: (nameOf: string) => `${nameOf} mentioned it significantly `,
  often: (rest: string) => `${rest === 'higher' ? 'more' : 'less'} often (`,
  everyoneElse: ') than everyone else. ',
  moreOften: 'more often (',
  by: (across: string) => `By ${across}: `,
};
