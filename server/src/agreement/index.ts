export { measuredAgreement, readAgreement } from './comparison.js';
export { agreementRoutes } from './routes.js';
