export { writeUpRoutes } from './routes.js';
