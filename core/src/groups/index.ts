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
