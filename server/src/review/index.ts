export { reviewRoutes } from './routes.js';
