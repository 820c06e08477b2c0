export { addCategories } from './categories.js';
export { respondentRoutes } from './routes.js';
