export {
  countAbove,
  expectAbove,
  lineForShareRight,
  outlookOf,
  type Expectation,
  type Outlook,
} from './expected.js';
export { LEAST_F1, mayMiss } from './decided.js';
export { redecide } from './redecide.js';
export { measureAtLine, measureCalibration, type Unseen } from './measured.js';
export { isWorseThanExpected, shareApplying } from './spotCheck.js';
