/** studyParts/variableCondition.tsx */
export const variableConditionTexts = {
  between: 'is between',
  any: 'is any of',
  statedNone: 'is stated, and none of',
  howAsked: (variable: string) => `How ${variable} is asked`,
  stated: 'is stated',
  stated2: 'is not stated',
  lowest: 'lowest',
  highest: 'highest',
  and: 'and',
  yes: 'Yes',
  no: 'No',
};

/** studyParts/noteRow.tsx */
export const noteRowTexts = {
  unsure: 'Unsure',
  marked: 'Marked',
  note: 'Note',
  on: 'on “',
  writeSomethingHere: 'Write something here',
  note2: 'The note',
  remove: (kind: string) => `Remove this ${kind}`,
};

/** studyParts/noteList.tsx */
export const noteListTexts = {
  addNote: 'Add the note',
};

/** studyParts/codeCombobox.tsx */
export const codeComboboxTexts = {
  codesFound: 'Codes found',
};

/** studyParts/codePicker.tsx */
export const codePickerTexts = {
  code: 'a code …',
  newCode: (search: string) => `New code “${search}”`,
};

/** studyParts/codeList.tsx */
export const codeListTexts = {
  takeAway: (code: string) => `Remove ${code}`,
};
