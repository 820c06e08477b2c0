export { makeReport } from './report.js';
export { reportRoutes } from './routes.js';
export {
  factBlocks,
  gridsAsCsv,
  readAnswerRows,
  readFacts,
  reportGrid,
  reportTable,
  writeDocx,
  writeHtml,
  writeWorkbook,
  type AnswerRow,
  type Block,
  type Grid,
  type Run,
} from './files/index.js';
