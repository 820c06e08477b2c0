export {
  CHANGE_CHANNEL,
  inChange,
  makeChange,
  noteInHistory,
  redoChange,
  notifyOfAccess,
  notifyOfAnything,
  notifyOfRun,
  undoChange,
  type ChangeMaker,
  type ChangeNotification,
} from './changes.js';
export {
  type CategoryRecord,
  type ChangeDiff,
  type QuestionRecord,
  type RespondentRecord,
  type StudyRecord,
  type VariableRecord,
} from './changeTables.js';
export { asRecord, selectFields } from './changeTables.js';
export { BIN_DAYS, emptyBin, keepBefore, moveToBin, restoreDeleted } from './bin.js';
export { copyBytes, copyRows, copyText, type CopyValue } from './copy.js';
export * from './entities/index.js';
export { behindTheirParents, readForeignKeys, type ForeignKey } from './foreignKeys.js';
export { listenTo, type Listening } from './listen.js';
export { openDatabase } from './orm.js';
export { indexIds } from './indexIds.js';
export {
  cutsAsJson,
  foldedInSql,
  isoTime,
  row,
  rows,
  unpackInts,
  withinGroup,
  type SqlValue,
  type SqlValues,
} from './query.js';
export {
  codesInUse,
  findAssignments,
  findClosings,
  findMentions,
  findNotes,
  findReadingAnswers,
  findSettlements,
  questionsInReview,
} from './records.js';
export { isBusy, isConnectionLost, isConstraintError, isDiskFull } from './databaseErrors.js';
export { readDataVersion, compactDataVersions, type DataVersion } from './dataVersion.js';
