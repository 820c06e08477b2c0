export { noteRoutes } from './routes.js';
