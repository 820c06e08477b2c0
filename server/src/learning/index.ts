export { learningRoutes, TRAINING_SEED } from './routes.js';
export { train } from './train.js';
export { readEstimates, type RunEstimates } from './estimates.js';
export { readUnseen, currentRun } from './runs.js';
export { canEstimate, wholeRandomSamples } from './material.js';
