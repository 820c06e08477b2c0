export { openStudyEvents } from './events.js';
export { historyRoutes } from './routes.js';
export { streamRoutes } from './streamRoutes.js';
