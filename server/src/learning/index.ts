export { learningRoutes, TRAINING_SEED } from './routes.js';
export { train } from './train.js';
export { readEstimates, type RunEstimates } from './estimates.js';
export { readUnseen, runInForce } from './runs.js';
export { canEstimate, wholeRandomSamples } from './material.js';
