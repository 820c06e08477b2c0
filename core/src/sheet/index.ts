export { guessRoles, type RoleGuess } from './guessRoles.js';
export { isNoAnswer } from './noAnswer.js';
export {
  planImport,
  type BackgroundKind,
  type BackgroundValue,
  type Finding,
  type ImportPlan,
} from './planImport.js';
export { type ColumnRole, type Table } from './table.js';
