export { measuredAgreement } from './comparison.js';
export { agreementRoutes } from './routes.js';
