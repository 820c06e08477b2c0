/** tone/checks.ts */
export const checkToneTexts = { tone: 'the tone of a line' };

/** tone/toneFile.ts */
export const toneFileTexts = {
  of: 'theme or code',
  column: 'group',
  people: 'people who mention it',
  sampled: 'of these, read in the sample',
  positive: 'positive',
  negative: 'negative',
  low: (tone: string) => `${tone}, lower end`,
  high: (tone: string) => `${tone}, upper end`,
  all: 'all answers',
  everybody: 'All',
};
