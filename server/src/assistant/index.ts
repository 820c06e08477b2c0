export { assistantRoutes } from './routes.js';
