export { makeReport } from './report.js';
export { reportRoutes } from './routes.js';
export { dropLoosePictures, writeUpRoutes } from './writeUps/index.js';
