import { counted } from '../lib/numbers.js';

/** notes/notesPage.tsx */
export const notesPageTexts = {
  notes: 'the notes',
  notes2: 'Notes',
  which: 'Which',
  notesContaining: 'Notes containing',
  containing: 'containing …',
  noteCounted: (shown: number) => counted(shown, 'note'),
  nothingNotedYetWhile: 'Nothing is noted yet. While coding,',
  altN: 'Alt N',
  writesNoteLineOne: 'writes a note on the line one is on, ',
  altM: 'Alt M',
  marksComeBack: 'marks it to come back to, and',
  altU: 'Alt U',
  saysOneUnsure: 'says that one is unsure.',
  code: 'on the code “',
  on: (externalId: string) => `on ${externalId}`,
  answer: (externalId: string) => `on the answer of ${externalId}`,
};
