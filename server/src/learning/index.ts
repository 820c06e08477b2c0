export { learningRoutes, TRAINING_SEED } from './routes.js';
export { train } from './train.js';
export { readOutOfScope, readUnseen, runInForce } from './runs.js';
