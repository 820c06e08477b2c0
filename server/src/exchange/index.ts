export { nameFile } from './download.js';
export { exchangeRoutes } from './routes.js';
