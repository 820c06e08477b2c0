export { blankAsides, findAsides, type AsideMarks } from './asides.js';
export { editDistance } from './editDistance.js';
export { escapePattern } from './escapePattern.js';
export { findHits, hitMustHold, type WordMatch } from './findHits.js';
export { likeThese } from './likeThese.js';
export { splitLines, type Span } from './lines.js';
export { duplicateHash, duplicateKey, foldForMatching } from './normalise.js';
export { orderBySimilarity } from './orderBySimilarity.js';
export { splitWords, type Word } from './words.js';
