import { counted } from '@yellow-thread/core/text';

/** coding/answers.ts */
export const answersTexts = {
  selectNotes: (notesAsJson: string) => `select ${notesAsJson} as notes`,
};

/** coding/ledgerConditions.ts */
export const ledgerConditionsTexts = {
  null: (stored: string) => ` or ${stored} is null`,
};

/** coding/mentions.ts */
export const mentionsTexts = {
  coding: (name: string, count: number) =>
    `coding “${name}”${count > 1 ? ` in ${count} answers` : ''}`,
  takingAway: (code: string, removed: number) =>
    `taking “${code}” away${removed > 1 ? ` from ${removed} answers` : ''}`,
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
  joiningTwoLines: 'the joining of two lines',
  partingLine: 'the parting of a line',
};

/** coding/notes.ts */
export const notesTexts = {
  edit: 'the edit of ',
  removal: 'the removal of ',
  unsure: 'an “unsure”',
};
