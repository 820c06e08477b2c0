export { countLengths } from './lengths.js';
export { countWords, isFunctionWord, type WordCount } from './wordCounts.js';
