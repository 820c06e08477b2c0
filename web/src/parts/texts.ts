import { asShare } from '../lib/numbers.js';

/** parts/notices.tsx */
export const noticesTexts = {
  cannotShown: 'This cannot be shown',
  goYourStudies: 'Go to your studies',
  fetching: (what: string) => `Fetching ${what} …`,
};

/** parts/asideFields.tsx */
export const asideFieldsTexts = {
  brackets: 'In brackets',
  linesBegin: 'On lines that begin with',
  separatedCommasLikeInt: 'Separated by commas, like INT:, Probe:',
};

/** parts/toggles.tsx */
export const togglesTexts = {
  findValue: 'Find a value',
  findAmong: (options: number) => `find among ${options}`,
  more: (fitting: number, mostShown: number) => `and ${fitting - mostShown} more`,
};

/** parts/editedText.tsx */
export const editedTextTexts = {
  somebodyChangedMeantimeWhat: (value: string) =>
    `Somebody changed this in the meantime to “${value}”. What you wrote is kept here; leave the field to put yours in its place.`,
};

/** parts/moveButtons.tsx */
export const moveButtonsTexts = {
  moveUp: (what: string) => `Move ${what} up`,
  moveDown: (what: string) => `Move ${what} down`,
};

/** parts/range.tsx */
export const rangeTexts = {
  between: (label: string, value: number, low: number, high: number) =>
    `${label} ${asShare(value)}, between ${asShare(low)} and ${asShare(high)}`,
  nothingMeasure: (label: string) => `${label}: nothing to measure`,
};

/** parts/jobProgress.tsx */
export const jobProgressTexts = {
  cancel: 'Cancel',
};

/** parts/verdictWords.ts */
export const verdictWordsTexts = {
  usableAbove: (line: number) => `usable above ${asShare(line)}`,
  littleEvidence: 'little evidence',
  relied: 'not to be relied on',
};
