export {
  keyOfSettled,
  type Coding,
  type CodingSide,
  type GivenCode,
  type SettledAnswer,
  type SinceParted,
} from './codingSide.js';
export { type MergedCodes } from './mergeCodes.js';
export { mergeCoding, type MergedCoding } from './mergeCoding.js';
