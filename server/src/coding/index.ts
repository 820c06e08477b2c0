export { readAnswers } from './answers.js';
export { codingRoutes } from './routes.js';
