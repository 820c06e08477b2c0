export { codesMeetInLine, type CodesWanted } from './codesMeet.js';
export { codesOfNearest, nearestTexts, sharesOf, weighLikely } from './codesOfNearest.js';
export { cutLines, type Cut } from './cutLines.js';
export { extendByWord } from './extendByWord.js';
export { passageIn } from './passageIn.js';
export {
  applyTableDiff,
  isEmptyRecordsDiff,
  reverseRecordsDiff,
  type RecordsDiff,
  type TableDiff,
} from './recordsDiff.js';
export {
  lineOfPassage,
  linesOfPassage,
  linesOf,
  splitAtPassages,
  type AnswerLine,
  type Segment,
} from './segments.js';
