export { studyContentRoutes } from './contentRoutes.js';
export { deleteStudyJob, dropEmptied } from './deleteStudy.js';
export { studyRoutes } from './routes.js';
export { countAnswers, findQuestion } from './studies.js';
