export { encodeStudy, enqueueEncoding } from './encodeJob.js';
export { studyNearest, type StudyNearest } from './nearest.js';
export { vectorsVersion } from './version.js';
export { nearestCodedLines } from './nearestCoded.js';
export { sentenceRoutes } from './routes.js';
export { storedVectors, type SharedVectors } from './storedVectors.js';
export { vectorsOfQuestion, vectorsOfTexts } from './vectors.js';
