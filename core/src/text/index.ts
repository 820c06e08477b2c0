export { splitLines, type Span } from './lines.js';
export { duplicateKey, foldForMatching } from './normalise.js';
export { splitWords, type Word } from './words.js';
