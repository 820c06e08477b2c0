export { toneRoutes } from './routes.js';
export { trainTone } from './trainTone.js';
