export { importFile } from './importFile.js';
export { importSheet } from './importSheet.js';
export { undoImport } from './imports.js';
export { restoreImport } from './restoreImport.js';
export { readTable } from './readTable.js';
export { readSheetJob } from './readingJob.js';
export { dropAbandoned } from './sheets.js';
export { importRoutes, LARGEST_SHEET, sheetRoutes } from './routes.js';
