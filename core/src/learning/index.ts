export { explain, type WordPart } from './evidence.js';
export {
  characterRuns,
  learnVocabulary,
  stack,
  vectorise,
  type SparseRows,
  type TextVector,
  type Vocabulary,
} from './features.js';
export { dealFolds } from './folds.js';
export { fitLogistic, scoreRows, sigmoid, type LinearModel } from './logistic.js';
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
  type MeasuredQuality,
  type Suggestion,
  type TrainingInput,
  type TrainingProgress,
  type WordWeight,
} from './trainQuestion.js';
