export { explain, type WordPart, type WordWeight } from './evidence.js';
export {
  characterRuns,
  learnVocabulary,
  rowBuilder,
  vectoriser,
  type SparseRows,
  type TextVector,
  type Vocabulary,
} from './features.js';
export { dealFolds } from './folds.js';
export { fitLogistic, scoreRows, sigmoid, type LinearModel } from './logistic.js';
export { measureQuality, type MeasuredQuality } from './measureQuality.js';
export {
  averagePrecision,
  bestF1Line,
  brierScore,
  f1,
  outcomeAt,
  plugInLine,
  precision,
  recall,
} from './metrics.js';
export { fitPlatt, type Calibration } from './platt.js';
export {
  FEW_EXAMPLES,
  FEWEST_EXAMPLES,
  LEAST_PROBABILITY,
  trainQuestion,
  type CodeResult,
  type Suggestion,
  type TrainingInput,
  type TrainingProgress,
} from './trainQuestion.js';
