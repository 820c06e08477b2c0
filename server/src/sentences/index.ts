export { sentenceEncoder } from './encoder.js';
export { encodeStudy, enqueueEncoding } from './encodeJob.js';
export { sentenceRoutes } from './routes.js';
export { storedVectors, type SharedVectors } from './storedVectors.js';
export { vectorsOfQuestion } from './vectors.js';
