export { nameFile, sendWritten } from './download.js';
export { writeGraphml } from './graphml.js';
export { exchangeRoutes } from './routes.js';
