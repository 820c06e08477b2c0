export { countLengths } from './lengths.js';
export { countWords, type WordCount } from './wordCounts.js';
