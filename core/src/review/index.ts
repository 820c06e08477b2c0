export {
  countAbove,
  expectAbove,
  foundAndMissed,
  thresholdForPrecision,
  outlookOf,
  type DecidedSoFar,
  type Expectation,
  type Outlook,
} from './expected.js';
export {
  medianPace,
  USUAL_PACE,
  waysToFinish,
  type Left,
  type Way,
  type WayToFinish,
} from './finish.js';
export { isReliable, modelVerdict, WORTH_A_LOOK, type ModelVerdict } from './verdict.js';
export { lineOfEvidence } from './lineOfEvidence.js';
export { redecide } from './redecide.js';
export { measureAtThreshold, measureCalibration, type Unseen } from './measured.js';
export { isWorseThanExpected, shareApplying } from './spotCheck.js';
