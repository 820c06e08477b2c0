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
  compareEstimates,
  compareGroups,
  compareWithRest,
  listEstimateTests,
  listTests,
  type ListedTest,
  exceededColumns,
  exceededEstimates,
  type AgainstRest,
  type CompareOptions,
  type GroupDifference,
} from './compare.js';
export { countTogether, togetherness, type Together } from './together.js';
export { orderTogether } from './orderTogether.js';
export { mostMentioned } from './mostMentioned.js';
export { decimalsOf, fittingDecimals, type Decimals } from './decimals.js';
export {
  figureText,
  type FigureCell,
  type FigureFormat,
  type FigureRef,
  type FigureTable,
} from './figures.js';
export {
  baseInWords,
  columnName,
  correctionWords,
  countsSentence,
  ruleNames,
  type CountedTable,
} from './words.js';
export {
  addKnownPart,
  boundByParts,
  estimateAny,
  estimateOf,
  FEWEST_SAMPLED,
  sampleWithin,
  type KnownPart,
  type SampledCode,
  type SampledQuestion,
  type SampleWithin,
  type ShareEstimate,
} from './estimates.js';
export {
  basesOf,
  COUNTING_RULES,
  countedAnswers,
  countedRow,
  decidedAnswers,
  defaultRule,
  type CodeState,
  type CountingRule,
  type QuestionState,
} from './counting.js';
