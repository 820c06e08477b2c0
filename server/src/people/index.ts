export { ensureDemoResearcher, ensureOwner } from './accounts.js';
export { noteInAudit, type AuditAction } from './audit.js';
export { auditRoutes, noteExports } from './auditRoutes.js';
export {
  assignedTo,
  loadAccount,
  makerOf,
  requireAccount,
  requireAssigned,
  requireStudy,
  type Maker,
} from './guard.js';
export { removeExpiredInvitations } from './invitations.js';
export { memberRoutes } from './memberRoutes.js';
export { behindForReaders, maskWriteUp, readerMask } from './readerMask.js';
export { peopleRoutes } from './routes.js';
export {
  createSessionStore,
  removeExpiredSessions,
  SESSION_DAYS,
  sessionSecret,
  studiesOfSession,
} from './sessionStore.js';
export { forgetAttempts } from './signInAttempts.js';
