export { bandOf, bandsFrom, parseLimits, type Band } from './bands.js';
export {
  addTo,
  countOf,
  countOfBoth,
  emptyBitset,
  forEachIn,
  forEachInBoth,
  fullBitset,
  has,
  intersect,
  unite,
  type Bitset,
} from './bitset.js';
export { valueName, type ValueNames } from './valueName.js';
