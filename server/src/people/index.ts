export { ensureDemoResearcher, ensureOwner } from './accounts.js';
export { loadAccount, makerOf, requireAccount, requireStudy, type Maker } from './guard.js';
export { memberRoutes } from './memberRoutes.js';
export { peopleRoutes } from './routes.js';
export {
  createSessionStore,
  removeExpiredSessions,
  SESSION_DAYS,
  sessionSecret,
} from './sessionStore.js';
