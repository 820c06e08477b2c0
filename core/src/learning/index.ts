export type { WordPart, WordWeight } from './suggesting/evidence.js';
export { rowBuilder, vectoriser, type TextVector } from './features/features.js';
export type { SparseRows } from './features/sparseRows.js';
export { characterRuns } from './features/lexicon.js';
export { learnVocabulary, type Vocabulary } from './features/vocabulary.js';
export { assignFolds } from './training/folds.js';
export { fitLogistic } from './solver/fitInterleaved.js';
export { sigmoid, type LinearModel } from './solver/linearModel.js';
export { measureQuality, resample, type MeasuredQuality } from './evaluation/measureQuality.js';
export {
  averagePrecision,
  bestF1Threshold,
  brierScore,
  f1,
  outcomeAt,
  plugInThreshold,
  precision,
  recall,
  type Outcome,
} from './evaluation/metrics.js';
export { fitPlatt, type Calibration } from './evaluation/calibration.js';
export { likelyGain, type CurvePoint, type LikelyGain } from './evaluation/curve.js';
export { findConfused, type ConfusedCodes, type UnseenOutcome } from './evaluation/confusion.js';
export { FEW_EXAMPLES, LEAST_PROBABILITY, type Mistake } from './evaluation/describeCode.js';
export { partThemes, withThemes, type LearntTheme, type Theme } from './training/themes.js';
export { placeThresholds, type OwnOutcome, type PlacedThreshold } from './evaluation/thresholds.js';
export { FEWEST_EXAMPLES } from './training/fitCodes.js';
export { codebookTexts, type TrainingAnswer, type TrainingInput } from './training/material.js';
export {
  settledTextsOf,
  trainCodes,
  trainQuestion,
  withThresholds,
  type TrainedCodes,
  type CodeResult,
  type TrainingProgress,
  type TrainingResult,
} from './training/trainQuestion.js';
export { listSuggestions, type Suggestion, type Suggestions } from './suggesting/suggestions.js';
export type { TrainingVectors } from './training/selectFeatures.js';
export { readWordTable, type WordTable } from './features/wordTable.js';
