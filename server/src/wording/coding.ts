import { counted } from '@yellow-thread/core/text';

/** coding/mentions.ts */
export const mentionsTexts = {
  coding: (name: string, count: number) =>
    `coding “${name}”${count > 1 ? ` in ${count} answers` : ''}`,
  takingAway: (code: string, removed: number) =>
    `removing “${code}”${removed > 1 ? ` from ${removed} answers` : ''}`,
  instead: (code: string, was: string) => `“${code}” instead of “${was}”`,
  moving: (code: string) => `moving “${code}”`,
  example: (code: string) => `the example of “${code}”`,
  withoutExample: (code: string) => `“${code}” without this example`,
  answer: 'an answer',
};

/** coding/hits.ts */
export const hitsTexts = {
  codingSearchWords: (name: string, added: number) =>
    `coding “${name}” ${counted(added, 'time')} by a search for words`,
};

/** coding/lines.ts */
export const linesTexts = {
  joiningTwoLines: 'joining two lines',
  partingLine: 'splitting a line',
};

/** notes/notes.ts */
export const notesTexts = {
  edit: 'the edit of ',
  removal: 'the removal of ',
  unsure: 'an “unsure”',
};

/** sampling/assignments.ts */
export const assignmentTexts = {
  assigning: (answers: number, coder: string) =>
    `assigning ${counted(answers, 'answer')} to ${coder}`,
  removing: (answers: number, coder: string) =>
    `removing ${counted(answers, 'answer')} assigned to ${coder}`,
};
