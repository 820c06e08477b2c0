export { makeChange, redoChange, undoChange, type ChangeDiff } from './changes.js';
export { copyRows, type CopyValue } from './copy.js';
export * from './entities.js';
export { openDatabase } from './orm.js';
export { row, rows } from './query.js';
