export { gwetAc1, krippendorffAlpha } from './manyCoders.js';
export { masiDistance } from './masi.js';
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
export { inWords, isOwnReading, type WhoRead } from './whoRead.js';
