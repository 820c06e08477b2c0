import type { CodeDifference } from '@yellow-thread/contract';
import { asCount, asSize, counted, plural } from '../lib/numbers.js';

/** studyFile/saveCopy.tsx */
export const saveCopyTexts = {
  title: 'Save a copy',
  why: 'The whole study as one file: sheets and their history, answers, codebook, coding with who and when, models and suggestions, groups, write-ups, maps and the change history. It can be opened here or on another machine as a study of its own. It holds what people wrote and their background: keep it as safe as the study.',
  exclude: 'Exclude',
  parts: {
    background: 'what is known of respondents',
    names_in_notes: 'names and addresses in notes',
    history: 'the change history',
  },
  save: 'Save a copy (ZIP)',
  saving: (bytes: number) => `Saving the copy: ${asSize(bytes)} so far`,
  cancel: 'Cancel',
};

/** studyFile/openCopy.tsx */
export const openCopyTexts = {
  ask: 'Open a copy of a study …',
  open: 'Open a copy',
  why: 'A study that was saved as a file becomes a study of yours here. The one that it was copied from is not changed.',
  file: 'File of a saved study',
  opening: 'Opening the copy',
  opened: (name: string) => `“${name}” is open.`,
};

/** What of a code differs. */
type Difference = CodeDifference['what'][number];

/** studyFile/mergeCopy.tsx */
export const mergeCopyTexts = {
  title: 'Merge a copy',
  why: 'Somebody opened a copy of this study and worked on it. Choose the file that they saved: you first see in numbers what it brings.',
  file: 'Saved copy to merge',
  comparing: 'Comparing the copy with this study',
  wouldBring: (name: string, savedAt: string) => `The copy of “${name}”, saved ${savedAt}`,
  merged: (name: string) => `The copy of “${name}” is merged`,
  merge: 'Merge it',
  cancel: 'Cancel',
  done: 'The copy is merged.',
  nothing: 'It brings nothing that is not here already.',
  matched: (answers: number) =>
    `${counted(answers, 'answer')} ${plural(answers, 'is', 'are')} the same in both.`,
  notHere: (answers: number) =>
    `${counted(answers, 'answer')} ${plural(answers, 'is', 'are')} not in this study: import the sheet here first, if you want their codes.`,
  otherText: (answers: number) =>
    `${counted(answers, 'answer')} ${plural(answers, 'has', 'have')} other words here: what is coded in ${plural(answers, 'it', 'them')} does not come in.`,
  settled: (answers: number) =>
    `${counted(answers, 'answer')} settled there ${plural(answers, 'is', 'are')} settled here, too.`,
  mentionsAdded: (mentions: number) =>
    `${counted(mentions, 'mention')} ${plural(mentions, 'is', 'are')} added.`,
  mentionsUpdated: (mentions: number) =>
    `${counted(mentions, 'mention')} ${plural(mentions, 'was', 'were')} changed there: ${plural(mentions, 'it becomes', 'they become')} as there.`,
  mentionsRemoved: (mentions: number) =>
    `${counted(mentions, 'mention')} ${plural(mentions, 'was', 'were')} removed there: ${plural(mentions, 'it is', 'they are')} removed here.`,
  mentionsSame: (mentions: number) =>
    `${counted(mentions, 'mention')} ${plural(mentions, 'was', 'were')} given to the same place in both.`,
  leftOut: (mentions: number) =>
    `${counted(mentions, 'mention')} ${plural(mentions, 'does', 'do')} not come in: the ${plural(mentions, 'answer was', 'answers were')} settled here and not there.`,
  mentionConflicts: (mentions: number) =>
    `${counted(mentions, 'mention')} ${plural(mentions, 'was', 'were')} changed in both: ${plural(mentions, 'it stays', 'they stay')} as here.`,
  newCodes: (names: string) => `New codes: ${names}.`,
  codesUpdated: (names: string) => `Codes changed there, which become as there: ${names}.`,
  codeConflicts: (names: string) => `Codes that differ and stay as here: ${names}.`,
  sameName: (names: string) =>
    `Codes made in both, of the same name, taken for the same: ${names}.`,
  mergedHere: (names: string) => `Codes merged here, whose mentions follow: ${names}.`,
  mergedThere: (names: string) =>
    `Codes merged there, which stay here until you merge them: ${names}.`,
  into: (code: string, into: string) => `“${code}” into “${into}”`,
  renamed: (here: string, there: string) => `“${here}” (there “${there}”)`,
  differs: (name: string, what: string) => `“${name}” (${what})`,
  what: {
    name: 'name',
    theme: 'theme',
    meaning: 'definition',
    archived: 'archived or not',
  } satisfies Record<Difference, string>,
  notes: (added: number, updated: number, removed: number) =>
    `Notes: ${asCount(added)} added, ${asCount(updated)} changed, ${asCount(removed)} removed.`,
  noHistory:
    'The copy has no history, so it is not known what was changed or removed there: that does not come in.',
  reading: (reading: { coder: string; count: number; agreed: number; question: string }) =>
    `${counted(reading.count, 'answer')} to “${reading.question}” ${plural(reading.count, 'was', 'were')} settled in both, by ${reading.coder} there: ${plural(reading.count, 'it becomes', 'they become')} a second reading. ${asCount(reading.agreed)} ${plural(reading.agreed, 'is', 'are')} coded alike.`,
  talkOver: 'See where they differ',
  notTaken: 'Groups, samples, models, maps and write-ups of the copy do not come in.',
  undo: 'It is one change: undo reverses all of it.',
};
