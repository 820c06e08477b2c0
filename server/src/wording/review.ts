import { counted, plural } from '@yellow-thread/core/text';

/** review/decide.ts */
export const decideTexts = {
  accepting: (name: string) => `accepting “${name}”`,
  refusing: (name: string) => `refusing “${name}”`,
  undoingDecision: (name: string) => `undoing a decision on “${name}”`,
  coding: (beside: string) => `coding “${beside}”`,
  of: (verb: string, open: number, name: string) =>
    `${verb} ${counted(open, 'suggestion')} of “${name}”`,
};

/** review/review.ts */
export const reviewTexts = {
  trainedCode: 'trained code',
  suggestion: 'suggestion',
};

/** review/spotChecks.ts */
export const spotChecksTexts = {
  drawingSpotCheck: (drawn: number, name: string) =>
    `drawing ${drawn} for a spot check of “${name}”`,
  spotCheck: 'spot check',
  answerSpotCheck: 'answer of the spot check',
  spotCheck2: (name: string) => `a spot check of “${name}”`,
  openingAgain: (decided: number, name: string) =>
    `opening ${counted(decided, 'bulk decision')} on “${name}” again`,
};

/** review/decideByModel.ts */
export const decideByModelTexts = {
  trainingRun: 'training run',
  leavingModels: (open: number) => `leaving ${counted(open, 'answer')} to the models`,
  takingAnswersBackModels: 'opening answers left to the models again',
};

/** review/finish.ts */
export const finishTexts = {
  closing: (names: undefined | string) => `closing “${names}”`,
  closingCodes: (closings: number) => `closing ${closings} codes`,
  openingAgain: (name: undefined | string) => `opening “${name ?? 'a code'}” again`,
};

/** review/readAnswer.ts */
export const readAnswerTexts = {
  settling: (answers: number) =>
    `settling ${plural(answers, 'an answer', counted(answers, 'answer'))}`,
  settlingWith: (answers: number, accepted: number) =>
    `settling ${plural(answers, 'an answer', counted(answers, 'answer'))} with ${counted(accepted, 'suggestion')}`,
};
