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
