export {
  CHANGE_CHANNEL,
  makeChange,
  redoChange,
  undoChange,
  type CategoryRecord,
  type ChangeDiff,
  type ChangeMaker,
  type ToldChange,
  type QuestionRecord,
  type RespondentRecord,
  type StudyRecord,
  type VariableRecord,
} from './changes.js';
export { copyRows, copyText, type CopyValue } from './copy.js';
export * from './entities.js';
export { openDatabase } from './orm.js';
export { row, rows } from './query.js';
export { findMentions, findNotes, findSettlements } from './records.js';
