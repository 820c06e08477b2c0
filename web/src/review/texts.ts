import { asCount, asDate, asShare, counted, plural } from '../lib/numbers.js';

/** review/spotChecks.tsx */
export const spotChecksTexts = {
  spotChecks: 'the spot checks',
  randomFewWhatDecided:
    'Reading a random few of the bulk decisions, without seeing what the model said, shows how often it was right. What you decide is kept and corrects the coding at once.',
  whatAcceptedBulk: 'Of what was accepted in bulk',
  whatRefusedBulk: 'Of what was refused in bulk',
  nobodyRead: (unread: number) => `${counted(unread, 'answer')} that nobody has read`,
  howManyMentionAfter: ': how many mention it after all',
  read: 'read',
  howManyRead: (side: string) => `How many of those ${side} to read`,
  to: (side: string, low: number, high: number) =>
    `${side === 'accepted' ? 'if .90 are right' : 'if .10 are missed'}: ${asShare(low)} to ${asShare(high)}`,
  draw: (wanted: number) => `Draw ${asCount(wanted)}`,
  drawn: 'Drawn. ',
  readThem: 'Read them',
  bulk: (size: number, drawnFrom: number, side: string) =>
    `${asCount(size)} of ${asCount(drawnFrom)} ${side} in bulk`,
  drawnRead: (drawnAt: string, read: number) => `drawn ${asDate(drawnAt)} · ${asCount(read)} read`,
  unsure: (unsure: number) => `, ${asCount(unsure)} unsure`,
  expected: (interval: string, expected: number) => `${interval}; expected ${asShare(expected)}`,
  readingThemFiguresAbove: (changed: number, side: string) =>
    `${counted(changed, 'of these was', 'of these were')} ${side === 'accepted' ? 'refused' : 'accepted'} by reading them; the figures above are from before that.`,
  clearlyFewerRightModel: 'Clearly fewer were right than the model predicted.',
  clearlyMoreMissedModel: 'Clearly more were missed than the model predicted.',
  openUnreadAgain: (unread: number) => `Open the ${asCount(unread)} unread again`,
  readLeft: (size: number, read: number) => `Read the ${asCount(size - read)} left`,
  readThemAgain: 'Read them again',
};

/** review/checkReading.tsx */
export const checkReadingTexts = {
  applies: 'applies',
  doesNotApply: 'does not apply',
  unsure: 'unsure',
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
    'Later trainings do not change this; answers imported later are open again.',
  openAgain: 'Open it again',
  noSuggestionModelExpects: (undecided: number, code: string, toFixed: string) =>
    `${counted(undecided, 'answer')} had no suggestion of ${code}; the model expects ${toFixed} mentions among them.`,
  mentionCloseCode: 'They do not mention it: close the code',
};

/** review/thresholdChart.tsx */
export const thresholdChartTexts = {
  precisionRecallMeasuredSettled: (line: number, precision: null | number, recall: null | number) =>
    `At ${asShare(line)}: precision ${precision === null ? 'none' : asShare(precision)}, recall ${asShare(recall ?? 0)}, measured on settled answers`,
  precision: 'precision',
  recall: 'recall',
  eachLine: 'at each line',
  howOftenEachProbability: (calibration: string) =>
    `How often each probability was right: ${calibration}`,
  howOftenEachProbabilityRight: 'how often each probability was right',
  ofThoseAt: (found: number, said: number) => `${asShare(found)} of those at ${asShare(said)}`,
};

/** review/thresholdFigures.tsx */
export const thresholdFiguresTexts = {
  accepted: (accepted: number) => `${asCount(accepted)} accepted`,
  bulk: (acceptedInBulk: number) => ` (${asCount(acceptedInBulk)} in bulk)`,
  refused: (refused: number) => `· ${asCount(refused)} refused · `,
  whatCodedHandCompare: 'Compare with what was coded by hand (H)',
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
  acceptAllSame: 'Accept them anyway?',
  aboutWouldWrongYou: (round: number, above: number, wanted: number, right: number) =>
    `About ${asCount(round)} of these ${asCount(above)} would be wrong. You asked for ${asShare(wanted)} right; ${asShare(right)} are expected to be.`,
  accept: 'Do not accept',
  acceptAllSame2: 'Accept anyway',
  whatLeftQuestion: 'What is left of this question',
  closedCodeDecidedEverybody: 'Closed: the code is decided for everybody.',
  nothingSuggestedModelKnows: 'Nothing is suggested: the model knows too little about this code.',
  everySuggestionDecidedWithout: (undecided: number) =>
    `Every suggestion is decided. Without a suggestion, and still undecided: ${counted(undecided, 'answer')}.`,
  measuredOutFoldRight: (defaultLine: number, right: string, found: string) =>
    `Measured out-of-fold at ${asShare(defaultLine)}: precision ${right}, recall ${found}.`,
  spotCheckFoundAccepted: (accepted: number) =>
    `A spot check found ${asShare(accepted)} of those accepted to be right: trust that over the expected figure.`,
  expectedRightVeryAnswers:
    '“Expected right” is about these answers, from the model’s own probabilities; “measured” is about answers that people coded. Where they differ a lot, trust the lower one until a spot check settles it.',
};

/** review/thresholdScale.tsx */
export const thresholdScaleTexts = {
  noLineExpectedRight: (share: number) =>
    `No line is expected to be right in ${asShare(share)} of what lies above it.`,
  sure: 'sure',
  answersCodedHandThem: (byHand: number, byHand2: number) =>
    `${byHand} answers coded by hand, ${byHand2} of them above the line`,
  line: 'The line',
  trust: (line: number) => `trust from ${asShare(line)}`,
  unsure: 'unsure',
  whereAnswersPeopleGave:
    'Answers that people gave this code, at the probability that the model gave them before it had seen them',
  hand: 'by hand',
  wantedRight: 'wanted right',
  acceptingFewerRightAsks:
    'If fewer than this are expected to be right, accepting asks first. Enter moves the line to where this share is expected to be right',
};

/** review/suggestionRow.tsx */
export const suggestionRowTexts = {
  bulk: ' in bulk',
  answersSameWords: (count: number) => `${asCount(count)} answers with the same words`,
  instead: 'Instead of',
  well: 'As well as',
  code: (asking: string, code: string) =>
    `The code ${asking} ${asking === 'instead' ? 'of' : 'as'} ${code}`,
  moreSuggestion: 'More actions for this suggestion',
  anotherCodeInstead: (code: string) => `Another code instead of ${code}`,
  anotherCodeWell: (code: string) => `Another code as well as ${code}`,
  noLongerUnsure: 'No longer unsure',
  unsure: 'Unsure',
  why: 'why',
  whySuggested: (code: string) => `Why ${code} is suggested`,
};

/** review/suggestionReasons.tsx */
export const suggestionReasonsTexts = {
  title: (code: string) => `Why ${code} is suggested`,
  meaning: 'Meaning of the line',
  words: 'Words',
  signed: (weight: number) => (weight < 0 ? '−' : '+') + Math.abs(weight).toFixed(1),
  whatAdds: 'What each adds to the log-odds that the code applies',
  nearest: 'Lines coded by hand that are nearest in meaning',
  withIt: (code: string) => `with ${code}`,
  withoutIt: 'without it',
  notRead: 'This answer is not read for meaning: its words alone count.',
  notKnown: 'These models were trained by an earlier version: train again to see why.',
};

/** review/suggestionList.tsx */
export const suggestionListTexts = {
  suggestions: (code: string) => `Suggestions of ${code}`,
  line: 'the line',
};

/** review/codeReview.tsx */
export const codeReviewTexts = {
  suggestions: 'the suggestions',
};

/** review/contradicted.tsx */
export const contradictedTexts = {
  decidedBulkModelsTrained:
    'These were decided in bulk, and models trained since are confident of the opposite. Nothing changes until you read and decide.',
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
  tone: 'Tone of lines',
  suggestionsDecidedFar: 'Suggestions decided so far',
  whoDecidedWhat: 'Who decided what',
};

/** review/codesLeft.tsx */
export const codesLeftTexts = {
  codeCode: 'Code by code',
  whereNoSuggestionCode:
    'When no suggestion of a code is open, you can say that the rest of the answers do not mention it: that closes the code. It stays closed in later trainings. An answer is settled when every code is decided for it.',
  closeCodesWhoseSuggestions: (ready: number) =>
    `Close ${asCount(ready)} codes whose suggestions are decided`,
  modelsExpectMentionsAmong: (toFixed: string) =>
    `The models expect ${toFixed} mentions among the rest of these.`,
  codes: 'Codes',
  code: 'Code',
  openSuggestions: 'open suggestions',
  undecidedAnswers: 'undecided answers',
  howStands: 'status',
  whatCanDone: 'What can be done',
  closedCameChangedSince: (by: string, at: string, newAnswers: number) =>
    `closed by ${by}, ${asDate(at)}; ${counted(newAnswers, 'answer')} were added or changed since`,
  closed: (by: string, at: string) => `closed by ${by}, ${asDate(at)}`,
  noModelTakes: (examples: number, fewest: number) =>
    `no model: ${counted(examples, 'example')} of the ${asCount(fewest)} it needs`,
  noModelYetTrain: 'no model yet: train again',
  everySuggestionDecidedMentions: (toFixed: undefined | string) =>
    `every suggestion decided; ${toFixed ?? '0'} mentions expected among the rest`,
  openAgain: 'Open again',
  openAnswersMostLike: 'Open answers, most similar to its definition and examples first',
  searchLikeness: 'Search by similarity',
  words: 'by words',
  theme: 'by its theme',
  closeRestMention: (drawn: string) => `Close ${drawn}: the rest does not mention it`,
  restMention: 'The rest does not mention it',
};

/** review/leaveToModels.tsx */
export const leaveToModelsTexts = {
  modelsDecideCodesLines: (open: number) =>
    `The models decide ${counted(open, 'answer')} at their codes’ lines. You read a random few of these without suggestions; what you find corrects the estimates.`,
  answersCheck: 'Answers to check',
  noModelHereRely: (names: string, unreliable: number) =>
    `${names}: there is no model here to rely on. Leave ${plural(unreliable, 'it', 'them')} to the check alone.`,
  leaveModels: (open: number) => `Leave ${counted(open, 'answer')} to the models`,
};

/** review/modelDecision.tsx */
export const modelDecisionTexts = {
  leftModels: 'Left to the models',
  checkReadUntilAll: (read: number, drawn: number) =>
    `${asCount(read)} of ${counted(drawn, 'answer')} of the check are read; until all are, the estimates are based on the random sample.`,
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
  waysEnd: 'Ways to finish',
  whatOpenCanRead: (asDuration: string) =>
    `Reading what is open takes ${asDuration}; it is the most reliable way. `,
  drawnCodingHandRead: (sampleOpen: number) =>
    `${counted(sampleOpen, 'answer')} drawn for coding by hand ${plural(sampleOpen, 'is', 'are')} read without suggestions. `,
  times: (own: boolean) =>
    `Times are based on ${own ? 'your own recent pace' : 'a typical pace, until yours is known'}.`,
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
    `${counted(work, 'answer')} with different words, ${asDuration}.`,
  widestIntervalAmongThemes: (widest: string, format: string, format2: string) =>
    `The widest interval among the themes is that of ${widest}: ${format} to ${format2}.`,
  everyAnswerReadTable: 'Every answer is read; the table is a plain count.',
  plainCountEndGood: (without: number) =>
    `A plain count in the end, as good as the models’ suggestions.${without > 0 ? ` ${asCount(without)} ${plural(without, 'code has no model and is', 'codes have no model and are')} searched for.` : ''}`,
  everyAnswerCodedWithout: 'Every answer is coded without suggestions.',
  nothingCountedSharesEstimated:
    'Nothing is counted: shares are estimated, corrected by what you read of the check.',
  about: (minuteCounted: string) => `about ${minuteCounted}`,
  about2: (hourCounted: string) => `about ${hourCounted}`,
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
