export { countWords, type WordCount } from './wordCounts.js';
