export type { WordPart, WordWeight } from './evidence.js';
export { rowBuilder, vectoriser, type TextVector } from './features.js';
export type { SparseRows } from './sparseRows.js';
export { characterRuns } from './lexicon.js';
export { learnVocabulary, type Vocabulary } from './vocabulary.js';
export { dealFolds } from './folds.js';
export { fitLogistic } from './fitTogether.js';
export { sigmoid, type LinearModel } from './linearModel.js';
export { measureQuality, resample, type MeasuredQuality } from './measureQuality.js';
export {
  averagePrecision,
  bestF1Line,
  brierScore,
  f1,
  outcomeAt,
  plugInLine,
  precision,
  recall,
  type Outcome,
} from './metrics.js';
export { fitPlatt, type Calibration } from './platt.js';
export { likelyGain, type CurvePoint, type LikelyGain } from './curve.js';
export { findConfused, type ConfusedCodes, type UnseenOutcome } from './confusion.js';
export { FEW_EXAMPLES, LEAST_PROBABILITY, type Mistake } from './describeCode.js';
export { partThemes, withThemes, type LearntTheme, type Theme } from './themes.js';
export { FEWEST_EXAMPLES } from './fitCodes.js';
export type { TrainingAnswer, TrainingInput } from './material.js';
export {
  trainQuestion,
  type CodeResult,
  type TrainingProgress,
  type TrainingResult,
} from './trainQuestion.js';
export { listSuggestions, type Suggestion, type Suggestions } from './suggestions.js';
export { readWordTable, type WordTable } from './wordTable.js';
