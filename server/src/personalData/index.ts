export { personalDataRoutes } from './routes.js';
