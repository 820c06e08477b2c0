export { leastSure, mostTelling } from './mostTelling.js';
export { marginOf, sampleSizeFor } from './sampleSize.js';
export { simpleRandomSample } from './simpleRandom.js';
export { allocate, stratifiedSample } from './stratified.js';
