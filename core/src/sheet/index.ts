export { isStoredAs, readBackground } from './cells.js';
export { checkSheet, type CheckContext, type SheetOutcome } from './checkSheet.js';
export { closedNames, countsAsNoAnswer, decideNoAnswer, withRole, wordingsOf } from './decide.js';
export { type Finding } from './findings.js';
export { guessCodeColumns } from './guessCodeColumns.js';
export { guessRoles, type RoleGuess } from './guessRoles.js';
export { findHead, type SheetHead } from './heads.js';
export { isNoAnswer, longestNoAnswer, NO_ANSWERS, noAnswerKey, noAnswerKeys } from './noAnswer.js';
export { profileColumns, type ColumnProfile } from './profile.js';
export { labelOf, rowReader, type FoundNames, type PlannedRow } from './rowReader.js';
export {
  isBackground,
  type BackgroundKind,
  type BackgroundValue,
  type ColumnRole,
  type ColumnSetting,
  type DuplicateChoice,
  type HeadColumn,
  type SheetSettings,
} from './settings.js';
export { type CategoryCount, type ProposedNoAnswer } from './valueCounts.js';
export { matchNames, type KnownNames } from './matchNames.js';
export { matchIds, type IdProposal } from './matchIds.js';
export { writingsFor, type Writing } from './values.js';
