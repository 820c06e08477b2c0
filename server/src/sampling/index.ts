export { samplingRoutes } from './routes.js';
export { distanceFromThreshold } from './telling.js';
