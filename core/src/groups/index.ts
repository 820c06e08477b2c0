export {
  addTo,
  countOf,
  emptyBitset,
  forEachIn,
  fullBitset,
  has,
  intersect,
  unite,
  type Bitset,
} from './bitset.js';
