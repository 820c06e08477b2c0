export { importSheet, writePlan } from './importSheet.js';
export { readSheet } from './readSheet.js';
export { sheetRoutes } from './routes.js';
