export { learningRoutes, TRAINING_SEED } from './routes.js';
export { train } from './train.js';
export { readOutOfScope, runInForce } from './runs.js';
