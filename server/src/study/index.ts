export { loadDemoStudy } from './loadDemoStudy.js';
export { studyRoutes } from './routes.js';
export { findQuestion } from './studies.js';
