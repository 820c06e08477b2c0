/** look/networkFile.ts */
export const networkFileTexts = {
  word: 'word',
  with: 'with',
  words: 'words',
  people: 'people',
  topic: 'topic',
  lines: 'lines',
  npmi: 'NPMI',
  outOf: (label: string, answers: number) => `${label}: share out of ${answers}`,
};
