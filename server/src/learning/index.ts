export { learningRoutes, TRAINING_SEED } from './routes.js';
export { train } from './train.js';
export { runInForce } from './training.js';
