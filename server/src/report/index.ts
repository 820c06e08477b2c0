export { makeReport } from './report.js';
export { reportRoutes } from './routes.js';
export { writeUpRoutes } from './writeUps/index.js';
