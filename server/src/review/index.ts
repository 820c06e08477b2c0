export { reviewRoutes } from './routes.js';
export { finishRoutes } from './finishRoutes.js';
