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

/** look/clusters.ts */
export const clustersTexts = {
  unnamed: 'no words in common',
  adopted: (name: string) => `adopting “${name}” as a code`,
  later: (name: string) => `keeping “${name}” for later`,
  dismissed: (name: string) => `dismissing “${name}”`,
  broughtBack: (name: string) => `bringing “${name}” back`,
};
