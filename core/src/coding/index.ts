export { extendByWord } from './extendByWord.js';
export {
  applyTableDiff,
  isEmptyRecordsDiff,
  reverseRecordsDiff,
  type RecordsDiff,
  type TableDiff,
} from './recordsDiff.js';
export {
  lineOfPassage,
  linesOf,
  splitAtPassages,
  type AnswerLine,
  type Segment,
} from './segments.js';
