export { ensureDemoResearcher, ensureOwner } from './accounts.js';
export { loadAccount, requireAccount, requireStudy } from './guard.js';
export { peopleRoutes } from './routes.js';
export {
  createSessionStore,
  removeExpiredSessions,
  SESSION_DAYS,
  sessionSecret,
} from './sessionStore.js';
