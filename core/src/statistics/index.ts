export {
  chiSquare,
  isTooThin,
  pairEffect,
  raoScott,
  type Association,
  type GroupShare,
} from './association.js';
export { adjust, type Correction } from './adjust.js';
export { tQuantile } from './studentT.js';
export { differenceEstimate } from './difference.js';
export {
  CROSS_FITTED,
  estimateShare,
  FEWEST_MENTIONED,
  type EstimatedShare,
  type SampledAnswers,
} from './estimateShare.js';
export { effectiveBase } from './kish.js';
export { normalQuantile } from './normal.js';
export {
  compareShares,
  fisherExact,
  newcombeInterval,
  pooledZ,
  type Compared,
  type Share,
} from './proportions.js';
export { fTail } from './fTail.js';
export { drawnFor, randomSource, shuffle } from './random.js';
export { chiSquareTail, normalTwoSided } from './tails.js';
export { wilsonInterval, type Interval } from './wilson.js';
export { logLikelihood } from './logLikelihood.js';
export { npmi } from './npmi.js';
export {
  correspondenceAnalysis,
  type Correspondence,
  type MappedProfile,
} from './correspondence.js';
export { evenly } from './evenly.js';
