/** Codes of Node and of PostgreSQL (errcodes appendix, classes 08 and 57) that say that the connection is gone. */
const lostCodes = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  '08000',
  '08001',
  '08003',
  '08006',
  '57P01',
  '57P02',
  '57P03',
]);

const codeOf = (error: unknown): string =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : '';

/** Whether the database is away, or went away meanwhile. */
export const isConnectionLost = (error: unknown): boolean =>
  lostCodes.has(codeOf(error)) ||
  (error instanceof Error && /connection terminated|not queryable/iu.test(error.message));

/** Whether the database has no room left to write (class 53 of the errcodes appendix), or the disk has none. */
export const isDiskFull = (error: unknown): boolean => ['53100', 'ENOSPC'].includes(codeOf(error));

/** Whether something else held a row, or all connections, for too long. */
export const isBusy = (error: unknown): boolean =>
  ['55P03', '53300'].includes(codeOf(error)) ||
  (error instanceof Error && /timeout acquiring a connection/iu.test(error.message));

/** Whether what was to be written does not go together with what is there (class 23). */
export const isConstraintError = (error: unknown): boolean => codeOf(error).startsWith('23');
