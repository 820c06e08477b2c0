export { lookRoutes } from './routes.js';
