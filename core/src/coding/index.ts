export { extendByWord } from './extendByWord.js';
export {
  applyTableDiff,
  isEmptyRecordsDiff,
  reverseRecordsDiff,
  type RecordsDiff,
  type TableDiff,
} from './recordsDiff.js';
export { lineOfPassage, splitAtPassages, type Segment } from './segments.js';
