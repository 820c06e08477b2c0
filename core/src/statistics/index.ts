export { differenceEstimate } from './difference.js';
export { effectiveBase } from './kish.js';
export { normalQuantile } from './normal.js';
export { randomSource, shuffle } from './random.js';
export { wilsonInterval, type Interval } from './wilson.js';
