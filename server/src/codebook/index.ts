export { asCode, draftCode, type Maker } from './codebook.js';
export { codebookRoutes } from './routes.js';
