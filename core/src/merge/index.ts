export {
  foldedName,
  keyOfSettled,
  type CodeFields,
  type CodingSide,
  type GivenCode,
  type SettledAnswer,
  type WrittenNote,
} from './codingSide.js';
export { mergeCodes, type CodeDifference, type MergedCodes } from './mergeCodes.js';
export { mergeCoding, type DoubleCoded, type MergedCoding } from './mergeCoding.js';
