export { reportRoutes } from './routes.js';
