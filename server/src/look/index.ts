export { gatherAnswers } from './clusters.js';
export { answersOf, readLookMaterial, type LookMaterial } from './material.js';
export { resultsOf } from './results.js';
export { lookRoutes } from './routes.js';
