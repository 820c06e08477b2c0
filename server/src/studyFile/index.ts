export { mergeRoutes, openCopyRoute, saveCopyRoute } from './routes.js';
