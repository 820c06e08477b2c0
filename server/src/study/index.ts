export { studyRoutes } from './routes.js';
export { findQuestion } from './studies.js';
