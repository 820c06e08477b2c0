export { asCode, draftCode } from './codebook.js';
export { codebookRoutes } from './routes.js';
