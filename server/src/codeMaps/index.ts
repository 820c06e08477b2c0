export { codeMapRoutes } from './routes.js';
