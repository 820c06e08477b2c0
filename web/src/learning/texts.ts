import { asCount, asDate, asPercent, asShare, counted, plural } from '../lib/numbers.js';

/** learning/notLearnable.tsx */
export const notLearnableTexts = {
  learnableYet: 'Not learnable yet',
  nearestInMeaning: 'Answers nearest in meaning to it',
  codeNeedsSettledExamples: (fewest: number) =>
    `A code needs ${fewest} settled examples before it gets a model.`,
  of: (examples: number, fewest: number) => `${examples} of ${fewest}`,
  codebookNoExampleQuestion: (unused: number) =>
    `${counted(unused, 'code')} of the codebook ${plural(unused, 'has', 'have')} no example in this question.`,
  themesCanLearntExamples:
    'Their themes can be learnt: examples of these codes are most likely among the open answers that are about the theme.',
  rightFound: (examples: number, precision: number, recall: number) =>
    `${counted(examples, 'example')}, precision ${asShare(precision)}, recall ${asShare(recall)}`,
  readLikelyAbout: (likely: number) => `Read ${counted(likely, 'open answer')} likely about it`,
  noOpenAnswerLikely: 'no open answer is likely about it',
};

/** learning/curve.tsx */
export const curveTexts = {
  known: 'not known',
  to: (signed: string, signed2: string, signed3: string) => `${signed} (${signed2} to ${signed3})`,
  averagePrecisionMore: (said: string, answers: undefined | number, gainWords: string) =>
    `average precision ${said}; ${answers ?? 50} more: ${gainWords}`,
  answers: (averagePrecision: number, answers: number) =>
    `${asShare(averagePrecision)} from ${answers} answers`,
};

/** learning/codeModel.tsx */
export const codeModelTexts = {
  noModelAnyMore: 'This code has no model any more.',
  moreAnswers: 'With more answers',
  averagePrecisionHowMany: (gainWords: string) =>
    `Average precision by how many answers were learnt from. 50 more: ${gainWords}.`,
  words: 'Words for it',
  wordsAgainst: 'Words against it',
  likelyButGivenHand: 'Likely, but not coded by hand',
  slipHandCodingWords: 'A mistake in hand-coding, or words that mislead the model.',
  givenHandButUnlikely: 'Coded by hand, but unlikely',
  saidOtherWordsRest: 'Said in other words than the rest, or a definition that is not clear.',
  settledExamples: 'settled examples',
  suggestionsReadAcceptedRefused: 'suggestions read: accepted, refused',
  precisionLine: 'precision at its line',
  recallLine: 'recall at its line',
  averagePrecision: 'average precision',
  nearestCodedAnswers: 'by the nearest coded answers',
  brierScore0Best: 'Brier score (0 is best)',
  defaultLine: 'default line',
  none: 'none',
  in: (weight: number, abs: number, answers: number) =>
    `${weight > 0 ? '+' : '−'}${asShare(abs)} in ${counted(answers, 'answer')}`,
  excluded: 'excluded',
  excludeForCode: (word: string) => `Exclude “${word}” for this code`,
  excludeForCodeTitle: 'Exclude it for this code',
  exclude: 'exclude',
  excludeForEveryCode: (word: string) => `Exclude “${word}” for every code`,
  excludeForEveryCodeTitle: 'Exclude it for every code',
  all: 'for all',
  alsoWordsLikeMore: (words: number, telling: number) =>
    `also words like “the”, “and”, “more” (${asCount(words - telling)})`,
  excludedWords: 'Excluded words',
  changesTakeEffect: 'Changes to excluded words take effect with the next training.',
  trainNow: 'Train now',
  everyCode: 'for every code',
  code: 'for this code',
  bringBack: 'include again',
  probability: (probability: number) => `probability ${asShare(probability)}`,
  seeCode: 'see it in Code',
};

/** learning/codesTable.tsx */
export const codesTableTexts = {
  code: 'Code',
  name: 'By name',
  examples: 'examples',
  settledAnswersCode: 'Settled answers with the code',
  precision: 'precision',
  whatModelWouldSuggest: 'Of what the model would suggest at its line, the share that is right',
  recall: 'recall',
  allAnswersMentionCode: 'Of all answers that mention the code, the share that the model finds',
  rightFoundOneNumber: 'Precision and recall in one number',
  avgPrecision: 'avg. precision',
  averagePrecisionHowWell:
    'Average precision: how well answers with the code are ranked above those without; 1 is perfect',
  n50MoreAnswers: '50 more answers',
  whatCoding50More: 'What coding 50 more answers would add to the average precision',
  codes: 'Codes',
  state: 'state',
  words: 'words for it',
  precision2: 'Precision',
  and: 'and',
  measuredSettledAnswersModel: 'are measured on settled answers that the model had not seen (',
  outFold: 'out-of-fold',
  lines95: '); the lines are 95%',
  intervals: 'intervals',
  compare: 'compare with',
  noOtherRun: 'no other run',
  run: (id: number, settled: number) => `run ${id}: ${counted(settled, 'answer')}`,
  manyAcceptedSuggestionsRead: 'and accepted suggestions that were read',
  right: 'right',
  found: 'found',
  noModel: 'no model',
  underExamples: (few: number) => `under ${few} examples`,
  oftenConfused: 'Often confused',
  wherePersonGaveFirst:
    'Where a person gave the first code, the model saw only the second. A sharper definition of what belongs to which, or one code in place of two, would help.',
  for: 'for',
  in: (answers: number) => `in ${counted(answers, 'answer')}`,
  was: (f1: number) => `was ${asShare(f1)}`,
};

/** learning/nextBatch.tsx */
export const nextBatchTexts = {
  answersWouldTeachMost: 'the answers that would teach most',
  howMany: 'how many',
  code: (found: number) => `Code these ${found}`,
  c: 'C',
  codeRandomInstead: (size: number) => `Code ${size} at random instead`,
  onlyAnswersDrawnRandom: 'Shares can only be estimated from answers drawn at random.',
  noOpenAnswerLeft: 'No open answer is left that the models can rank.',
  nearLine: 'near the line for',
  nearestTo: 'nearest in meaning to',
  unlikeAnythingCoded: 'unlike anything coded',
  howMuchMoreCoding: 'How much more coding would help is not known yet.',
  coding50MoreAnswers: (littleGain: number) =>
    `Coding 50 more answers would help little: less than ${asShare(littleGain)} of average precision for every code.`,
  coding50MoreAnswersWould: (helped: number, gains: number) =>
    `Coding 50 more answers would help ${helped} of ${gains} codes, and the others little.`,
  coding50MoreAnswersWouldHelp: (helped: number, gains: number, mean: number) =>
    `Coding 50 more answers would help ${helped} of ${gains} codes: average precision would rise by about ${asShare(mean)}.`,
};

/** learning/runs.tsx */
export const runsTexts = {
  trainingRuns: 'Training runs',
  run: 'Run',
  settled: 'settled',
  answers: 'answers',
  excluded: 'excluded',
  runsSameDataWords: 'Runs with the same data, words and seed give identical results',
  data: 'data',
  seconds: 'seconds',
  state: 'state',
  bulk: ' and bulk',
  kept: 'not kept',
  use: 'in use',
  useAgain: 'Use again',
  suggestionsNoLongerKept: 'its suggestions are no longer kept',
  usingRunAgainPuts:
    'Using a run again puts its suggestions in place of the open ones. What was accepted or refused stays as it is.',
};

/** learning/shares.tsx */
export const sharesTexts = {
  sharesCanEstimatedAnswers: (canEstimate: boolean) =>
    `Shares can be estimated from answers that were drawn at random and all settled${canEstimate ? ': there are some now, train again to see the estimates.' : '.'} `,
  drawRandomSampleCode: 'Draw a random sample in Code',
  drawnRandomSettledModel: (sampled: number, answers: number) =>
    `${counted(sampled, 'answer')} drawn at random and settled, of ${asCount(answers)}. The model reads the rest; its error on the drawn answers, which it had not seen, corrects it (`,
  differenceEstimator: 'difference estimator',
  nearerTwoLinesBelow:
    '). The more alike the two lines below are in length, the less the model adds.',
  estimatedShares: 'Estimated shares',
  code: 'Code',
  sampleAlone: 'from the sample alone',
  modelsHelp: 'with the model’s help',
  sample: 'sample',
  of: (mentioned: number, sampled: number, asInterval: string) =>
    `${asCount(mentioned)} of ${asCount(sampled)}, ${asInterval}`,
  estimate: 'estimate',
  of2: (value: number, answers: number, asInterval: string) =>
    `${asPercent(value, answers)} of ${asCount(answers)}, ${asInterval}`,
  tooFewExamplesModel: 'too few examples for a model',
  tooFewSampleMention: 'too few in the sample mention it',
  intervals: 'intervals',
  wilsons: 'Wilson’s',
  sampleWilsonsEquallyExact:
    'for the sample; for the estimate, Wilson’s at its effective sample size. These are estimates, not counts; as a table, by group too, they are in the ',
  reportEstimates: 'report with estimates',
  to: (low: number, base: number, high: number) =>
    `${asPercent(low, base)} to ${asPercent(high, base)}`,
};

/** learning/trainStop.tsx */
export const trainStopTexts = {
  codeCode: 'Code by code',
  estimatedShares: 'Estimated shares',
  whatCodeNext: 'What to code next',
  runs: 'Runs',
  training: 'the training',
  nothingLearnYet: 'Nothing to learn from yet',
  modelLearnsAnswersYou:
    'A model learns from answers that you have settled. Common practice is to code about 10% by hand first.',
  codeSomeAnswers: 'Code some answers',
  training2: 'Training',
  whatWouldHelp: 'What would help',
  learnsCodebooksWords: (settled: number, howChosen: string) =>
    `Learns from ${counted(settled, 'settled answer')} (${howChosen}) and the codebook’s words.`,
  modelsLearnEverybodyGroup: ' Models learn from everybody; the group is who gets suggestions.',
  lastTrained: (finishedAt: string, settled: number, fresh: number) =>
    ` Last trained ${asDate(finishedAt)} on ${asCount(settled)}${fresh > 0 ? `; ${asCount(fresh)} settled since` : ''}.`,
  modelsOwnGuessesLearning:
    'They are the models’ own guesses: learning from them makes models more confident, not more accurate',
  learnAlsoBulkNobody: (unreadInBulk: number) =>
    `also learn from ${counted(unreadInBulk, 'decision')} in bulk that nobody read`,
  cancel: 'Cancel',
  training3: 'Training …',
  trainAgain: 'Train again',
  train: 'Train',
  readingAllAnswers: 'Reading all answers',
  learnt: (done: number, value: number) => `${asCount(done)} of ${counted(value, 'code')} learnt`,
  drawnRandom: (settledInRandom: number) => `${asCount(settledInRandom)} drawn at random`,
  mostTelling: (settledInTelling: number) => `${asCount(settledInTelling)} most telling`,
  noSample: (rest: number) => `${asCount(rest)} in no sample`,
  suggest: 'suggest for',
  allOpenAnswers: (open: number) => `all ${asCount(open)} open answers`,
  whatNobodyWorked: 'what nobody has worked on',
  sampleOnly: 'the sample only',
  group: (name: string) => `the group ${name}`,
  noCodeEnoughSettled:
    'No code has enough settled examples yet: training would find nothing to learn.',
  enoughSettledExamples: (ready: number) =>
    `${counted(ready, 'code')} ${plural(ready, 'has', 'have')} enough settled examples.`,
};
