export {
  acrossQuestions,
  countCrosstab,
  measureBase,
  rollUp,
  rowOfMentions,
  type Base,
  type BaseKind,
  type CrosstabCell,
  type CrosstabInput,
  type CrosstabRow,
} from './crosstab.js';
export {
  asGroupShare,
  compareGroups,
  compareWithRest,
  exceededColumns,
  type AgainstRest,
  type CompareOptions,
  type GroupDifference,
} from './compare.js';
export { countTogether, togetherness, type Together } from './together.js';
export {
  makeDraft,
  type DraftInput,
  type DraftNode,
  type DraftQuote,
  type DraftTable,
} from './draft.js';
export { decimalsOf, fittingDecimals, type Decimals } from './decimals.js';
export { figureText, type FigureFormat, type FigureRef, type FigureTable } from './figures.js';
export { baseWords, columnName, correctionWords } from './words.js';
export {
  estimateAny,
  estimateOf,
  FEWEST_SAMPLED,
  sampleWithin,
  type SampledCode,
  type SampleWithin,
} from './estimates.js';
