import { asCount, asDate, asShare, counted } from '../parts/numbers.js';

/** review/spotChecks.tsx */
export const spotChecksTexts = {
  spotChecks: 'the spot checks',
  randomFewWhatDecided:
    'A random few of what was decided in bulk, read without knowing what the model said, show how often it was right. What you find is kept for this code as you found it, and corrected at once.',
  whatAcceptedBulk: 'Of what was accepted in bulk',
  whatRefusedBulk: 'Of what was refused in bulk',
  nobodyRead: (unread: number) => `${counted(unread, 'answer')} that nobody has read`,
  howManyMentionAfter: ': how many mention it after all',
  read: 'read',
  howManyRead: (side: string) => `How many of those ${side} to read`,
  to: (side: string, low: number, high: number) =>
    `${side === 'accepted' ? 'at .90 right' : 'at .10 missed'}: ${asShare(low)} to ${asShare(high)}`,
  draw: (wanted: number) => `Draw ${asCount(wanted)}`,
  drawn: 'Drawn. ',
  readThem: 'Read them',
  bulk: (size: number, drawnFrom: number, side: string) =>
    `${asCount(size)} of ${asCount(drawnFrom)} ${side} in bulk`,
  drawnRead: (drawnAt: string, read: number) => `drawn ${asDate(drawnAt)} · ${asCount(read)} read`,
  unsure: (unsure: number) => `, ${asCount(unsure)} unsure`,
  expected: (interval: string, expected: number) => `${interval}; expected ${asShare(expected)}`,
  readingThemFiguresAbove: (changed: number, side: string) =>
    `${counted(changed, 'of these was', 'of these were')} ${side === 'accepted' ? 'refused' : 'accepted'} by reading them; the figures above are as found before that.`,
  clearlyFewerRightModel: 'Clearly fewer were right than the model led one to expect.',
  clearlyMoreMissedModel: 'Clearly more were missed than the model led one to expect.',
  openUnreadAgain: (unread: number) => `Open the ${asCount(unread)} unread again`,
  readLeft: (size: number, read: number) => `Read the ${asCount(size - read)} left`,
  readThemAgain: 'Read them again',
};

/** review/checkReading.tsx */
export const checkReadingTexts = {
  answerBeforeNextAnswer: 'answer before, next answer',
  codeApplies: 'the code applies',
  apply: 'it does not apply',
  apply2: 'does not apply',
  answersSpotCheck: 'the answers of the spot check',
  spotCheck: (code: string) => `${code}: spot check`,
  read: (read: number, answers: number) => `${asCount(read)} of ${asCount(answers)} read`,
  include: (include: string) => `Include: ${include}`,
  exclude: (exclude: string) => `Exclude: ${exclude}`,
  spotChecks: (code: string) => `Spot checks of ${code}`,
  seeWhatFound: 'See what was found',
  backLine: 'back to the line',
  answersSpotCheck2: 'Answers of the spot check',
};

/** review/byHand.tsx */
export const byHandTexts = {
  codedHand: (code: string) => `${code}, coded by hand`,
  what: 'What it is',
  include: 'Include',
  exclude: 'Exclude',
  nothingQuestionGivenCode: 'Nothing in this question was given this code by hand.',
  codedHand2: 'Coded by hand',
  showMore: (given: number) => `Show more of ${asCount(given)}`,
};

/** review/closeCode.tsx */
export const closeCodeTexts = {
  laterTrainingsLeaveAnswers:
    'Later trainings leave it as it is; answers that come with later sheets are open again.',
  openAgain: 'Open it again',
  noSuggestionModelExpects: (undecided: number, code: string, toFixed: string) =>
    `${counted(undecided, 'answer')} had no suggestion of ${code}; the model expects ${toFixed} mentions among them.`,
  mentionCloseCode: 'They do not mention it: close the code',
};

/** review/lineChart.tsx */
export const lineChartTexts = {
  precisionRecallMeasuredSettled: (line: number, precision: null | number, recall: null | number) =>
    `At ${asShare(line)}: precision ${precision === null ? 'none' : asShare(precision)}, recall ${asShare(recall ?? 0)}, measured on settled answers`,
  precision: 'precision',
  recall: 'recall',
  eachLine: 'at each line',
  howOftenEachProbability: (calibration: string) =>
    `How often each probability was right: ${calibration}`,
  howOftenEachProbabilityRight: 'how often each probability was right',
};

/** review/lineFigures.tsx */
export const lineFiguresTexts = {
  accepted: (accepted: number) => `${asCount(accepted)} accepted`,
  bulk: (acceptedInBulk: number) => ` (${asCount(acceptedInBulk)} in bulk)`,
  refused: (refused: number) => `· ${asCount(refused)} refused · `,
  whatCodedHandCompare: 'What was coded by hand, to compare with: H',
  exampleCounted: (examples: number) => counted(examples, 'example'),
  line: 'line at',
  above: 'above it',
  expectedRight: 'expected right',
  foundAll: 'found of all',
  spotChecks: (code: string) => `Spot checks of ${code}`,
  spotCheck: 'Spot check',
  back: (defaultLine: number) => `Back to ${asShare(defaultLine)}`,
  whatTrainSaysModel: 'What Train says of the model',
  model: (verdictWords: string) => `model: ${verdictWords}`,
  refuseBelow: (below: number) => `Refuse ${asCount(below)} below`,
  acceptAbove: (above: number) => `Accept ${asCount(above)} above`,
  acceptAllSame: 'Accept all the same?',
  aboutWouldWrongYou: (round: number, above: number, wanted: number, right: number) =>
    `About ${asCount(round)} of these ${asCount(above)} would be wrong. You want ${asShare(wanted)} right; expected are ${asShare(right)}.`,
  accept: 'Do not accept',
  acceptAllSame2: 'Accept all the same',
  whatLeftQuestion: 'What is left of this question',
  closedCodeDecidedEverybody: 'Closed: the code is decided for everybody.',
  nothingSuggestedModelKnows: 'Nothing is suggested: the model knows too little of this code.',
  everySuggestionDecidedWithout: (undecided: number) =>
    `Every suggestion is decided. For ${counted(undecided, 'answer')} without one it is not decided yet.`,
  measuredOutFoldRight: (defaultLine: number, right: string, found: string) =>
    `Measured out-of-fold at ${asShare(defaultLine)}: right ${right}, found ${found}.`,
  spotCheckFoundAccepted: (accepted: number) =>
    `A spot check found ${asShare(accepted)} of those accepted to be right: believe that before what is expected.`,
  expectedRightVeryAnswers:
    '“Expected right” is of these very answers, by the model’s own probabilities; “measured” is of answers that people coded. Where they differ much, believe the lower one until a spot check settles it.',
};

/** review/lineScale.tsx */
export const lineScaleTexts = {
  noLineExpectedRight: (share: number) =>
    `No line is expected to be right in ${asShare(share)} of what lies above it.`,
  sure: 'sure',
  answersCodedHandThem: (byHand: number, byHand2: number) =>
    `${byHand} answers coded by hand, ${byHand2} of them above the line`,
  line: 'The line',
  trust: (line: number) => `trust from ${asShare(line)}`,
  unsure: 'unsure',
  whereAnswersPeopleGave:
    'Where answers that people gave this code stand, by what the model said before it knew them',
  hand: 'by hand',
  wantedRight: 'wanted right',
  acceptingFewerRightAsks:
    'Accepting fewer right than this asks once. Enter lays the line as low as so many are expected to be right',
};

/** review/suggestionRow.tsx */
export const suggestionRowTexts = {
  bulk: ' in bulk',
  answersSameWords: (count: number) => `${asCount(count)} answers of the same words`,
  instead: 'Instead of',
  well: 'As well as',
  code: (asking: string, code: string) =>
    `The code ${asking} ${asking === 'instead' ? 'of' : 'as'} ${code}`,
  moreSuggestion: 'More to do with this suggestion',
  anotherCodeInstead: (code: string) => `Another code instead of ${code}`,
  anotherCodeWell: (code: string) => `Another code as well as ${code}`,
  noLongerUnsure: 'No longer unsure',
  unsure: 'Unsure',
};

/** review/suggestionList.tsx */
export const suggestionListTexts = {
  suggestions: (code: string) => `Suggestions of ${code}`,
  line: 'the line',
};

/** review/useReviewKeys.ts */
export const useReviewKeysTexts = {
  suggestionBeforeNextSuggestion: 'suggestion before, next suggestion',
  accept: 'accept it',
  refuse: 'refuse it',
  openAgain: 'open it again',
  markWordsWhichAccepted: 'mark words, on which it is then accepted',
  anotherCodeInstead: 'another code instead',
  anotherCodeWell: 'another code as well',
  markUnmarkUnsure: 'mark or unmark as unsure',
  whatCodedHandCompare: 'what was coded by hand, to compare',
  moveLineOneSuggestion: 'move the line by one suggestion',
  goLine: 'go to the line',
};

/** review/codeReview.tsx */
export const codeReviewTexts = {
  suggestions: 'the suggestions',
};

/** review/contradicted.tsx */
export const contradictedTexts = {
  decidedBulkModelsTrained:
    'They were decided in bulk, and models trained since are sure of the opposite. Nothing is changed until you read it and decide.',
  bulkNow: (state: string) => `${state} in bulk; now `,
  applies: 'It applies',
  apply: 'It does not apply',
};

/** review/progress.tsx */
export const progressTexts = {
  code: 'Code',
  open: 'open',
  accepted: 'accepted',
  refused: 'refused',
  oneOne: (read: number) => `${asCount(read)} one by one`,
  bulk: (bulk: number) => `${asCount(bulk)} in bulk`,
};

/** review/reviewStop.tsx */
export const reviewStopTexts = {
  suggestions: 'the suggestions',
  noSuggestionsYet: 'No suggestions yet',
  suggestionsComeTrainingAnswers:
    'Suggestions come from training on the answers that you have settled.',
  goTrain: 'Go to Train',
  codesSuggestions: 'Codes with suggestions',
  contradictedModels: 'Contradicted by the models',
  contradictedModels2: (contradicted: number) =>
    `${counted(contradicted, 'bulk decision')} contradicted by the models`,
  whatLeft: 'What is left',
  suggestionsDecidedFar: 'Suggestions decided so far',
  whoDecidedWhat: 'Who decided what',
};

/** review/codesLeft.tsx */
export const codesLeftTexts = {
  codeCode: 'Code by code',
  whereNoSuggestionCode:
    'Where no suggestion of a code is open, say that the rest does not mention it: that closes the code. It stays closed through later trainings. An answer is settled when every code is decided for it.',
  closeCodesWhoseSuggestions: (ready: number) =>
    `Close ${asCount(ready)} codes whose suggestions are decided`,
  modelsExpectMentionsAmong: (toFixed: string) =>
    `The models expect ${toFixed} mentions among what is left of these.`,
  codes: 'Codes',
  code: 'Code',
  openSuggestions: 'open suggestions',
  undecidedAnswers: 'undecided answers',
  howStands: 'how it stands',
  whatCanDone: 'What can be done',
  closedCameChangedSince: (by: string, at: string, newAnswers: number) =>
    `closed by ${by}, ${asDate(at)}; ${counted(newAnswers, 'answer')} came or changed since`,
  closed: (by: string, at: string) => `closed by ${by}, ${asDate(at)}`,
  noModelTakes: (examples: number, fewest: number) =>
    `no model: ${counted(examples, 'example')} of the ${asCount(fewest)} that it takes`,
  noModelYetTrain: 'no model yet: train again',
  everySuggestionDecidedMentions: (toFixed: undefined | string) =>
    `every suggestion decided; ${toFixed ?? '0'} mentions expected among the rest`,
  openAgain: 'Open again',
  openAnswersMostLike: 'Open answers, those most like its definition and examples first',
  searchLikeness: 'Search by likeness',
  words: 'by words',
  theme: 'by its theme',
  closeRestMention: (drawn: string) => `Close ${drawn}: the rest does not mention it`,
  restMention: 'The rest does not mention it',
};

/** review/leaveToModels.tsx */
export const leaveToModelsTexts = {
  modelsDecideCodesLines: (open: number) =>
    `The models decide ${counted(open, 'answer')} at their codes’ lines. A random few of these are read by you, without suggestions: what you find corrects the estimates.`,
  answersCheck: 'Answers to check',
  noModelHereRely: (names: string, unreliable: number) =>
    `${names}: there is no model here to rely on. Leave ${unreliable === 1 ? 'it' : 'them'} to the check alone.`,
  leaveModels: (open: number) => `Leave ${counted(open, 'answer')} to the models`,
};

/** review/modelDecision.tsx */
export const modelDecisionTexts = {
  leftModels: 'Left to the models',
  checkReadUntilAll: (read: number, drawn: number) =>
    `${asCount(read)} of ${counted(drawn, 'answer')} of the check are read; until all are, the estimates rest on the random sample.`,
  checkReadEstimatesCorrected: (drawn: number) =>
    `The check of ${counted(drawn, 'answer')} is read: the estimates are corrected by it.`,
  readLeft: (toRead: number) => `Read the ${asCount(toRead)} left`,
  seeEstimates: 'See the estimates',
  openThemAgain: 'Open them again',
};

/** review/ways.tsx */
export const waysTexts = {
  lessMinute: 'less than a minute',
  minuteCounted: (minutes: number) => counted(minutes, 'minute'),
  hourCounted: (round: number) => counted(round, 'hour'),
  waysEnd: 'Ways to the end',
  whatOpenCanRead: (asDuration: string) =>
    `What is open can be read in ${asDuration}. That is the surest way. `,
  drawnCodingHandRead: (sampleOpen: number) =>
    `${counted(sampleOpen, 'answer')} drawn for coding by hand ${sampleOpen === 1 ? 'is' : 'are'} read without suggestions. `,
  times: (own: boolean) =>
    `Times are by ${own ? 'your own pace of late' : 'a usual pace, until yours is known'}.`,
  leaveRestModels: 'Leave the rest to the models …',
  trainFirst: 'train first',
  train: 'Train',
  reportEstimatesNow: 'Report estimates now',
  readAnswerAnswerSuggestions: 'Read answer by answer, with suggestions filled in',
  decideCodeCode: 'Decide code by code',
  codeHandWhatLeft: 'Code by hand what is left',
  letModelsDecideRest: 'Let the models decide the rest',
  seeEstimates: 'See the estimates',
  readThem: 'Read them',
  goReview: 'Go to Review',
  goCode: 'Go to Code',
  noMoreWork: 'No more work.',
  modelsUnsureOthersBulk: (work: number, asDuration: string) =>
    `${counted(work, 'suggestion')} that the models are unsure of, ${asDuration}; the others in bulk.`,
  check: (work: number, asDuration: string) =>
    `${counted(work, 'answer')} to check, ${asDuration}.`,
  differentWords: (work: number, asDuration: string) =>
    `${counted(work, 'answer')} of different words, ${asDuration}.`,
  widestIntervalAmongThemes: (widest: string, format: string, format2: string) =>
    `The widest interval among the themes is that of ${widest}: ${format} to ${format2}.`,
  everyAnswerReadTable: 'Every answer is read; the table is a plain count.',
  plainCountEndGood: (without: number) =>
    `A plain count in the end, as good as the models’ suggestions.${without > 0 ? ` ${asCount(without)} ${without === 1 ? 'code has no model and is' : 'codes have no model and are'} searched for.` : ''}`,
  everyAnswerCodedWithout: 'Every answer is coded without suggestions.',
  nothingCountedSharesEstimated:
    'Nothing is counted: shares are estimated, corrected by what you read of the check.',
};

/** review/leftPage.tsx */
export const leftPageTexts = {
  whatLeft: 'what is left',
  finished: 'Finished',
  whatLeft2: 'What is left',
  everyAnswerSettled: 'Every answer is settled. ',
  goReport: 'Go to the report',
  settledHand: (assisted: number) =>
    `settled by hand${assisted > 0 ? `, ${asCount(assisted)} of them with suggestions in view` : ''}`,
  decidedReviewCodeCode: 'decided in review, code by code',
  leftModelsEstimatedCounted: 'left to the models: estimated, not counted',
  of: (answered: number) => `of ${counted(answered, 'answer')}`,
};
