export {
  acrossQuestions,
  countCloth,
  measureBase,
  rollUp,
  type Base,
  type BaseKind,
  type ClothCell,
  type ClothInput,
  type ClothRow,
} from './cloth.js';
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
