export { eachOnce, gwetAc1, krippendorffAlpha, type Judged } from './manyCoders.js';
export { masiDistance } from './masi.js';
export { bootstrapKappa } from './bootstrapKappa.js';
export { cohenKappa, type Kappa } from './kappa.js';
export {
  compareCoders,
  stateOfAgreement,
  alphaOfSets,
  alphaOfCode,
  type AgreementState,
  type CodeAgreement,
  type CodesOf,
} from './compareCoders.js';
export { replaceCodes, type CodedTwice } from './replaceCodes.js';
export {
  coderNames,
  listNames,
  isOwnReading,
  type CoderNames,
  type ReadingCoders,
} from './readingCoders.js';
