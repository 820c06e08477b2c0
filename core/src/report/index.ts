export {
  countCloth,
  measureBase,
  rollUp,
  type Base,
  type BaseKind,
  type ClothCell,
  type ClothInput,
  type ClothRow,
} from './cloth.js';
export { exceededColumns, type LetterOptions } from './letters.js';
