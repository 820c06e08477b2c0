export { likeThese } from './likeThese.js';
export { nearDuplicates } from './nearDuplicates.js';
export { orderBySimilarity, orderTextsBySimilarity } from './orderBySimilarity.js';
export { tfidfRows } from './tfidfRows.js';
