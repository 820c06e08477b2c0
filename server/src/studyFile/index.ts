export { openCopyRoute, saveCopyRoute } from './routes.js';
