export { lookAt, type FirstLook } from './look.js';
export type { Phrase } from './phrases.js';
export type { WordCount } from './wordCounts.js';
