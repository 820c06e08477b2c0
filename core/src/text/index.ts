export { blankAsides, findAsides, type AsideMarks } from './asides.js';
export { editDistance } from './editDistance.js';
export { splitLines, type Span } from './lines.js';
export { duplicateKey, foldForMatching } from './normalise.js';
export { splitWords, type Word } from './words.js';
