/** learning/runs.ts */
export const runsTexts = {
  trainingRun: 'training run',
};

/** learning/excludedWords.ts */
export const excludedWordsTexts = {
  everyCode: 'every code',
  excluding: (word: string, value: string) => `excluding “${word}” for ${value}`,
  bringingBack: (word: string) => `including “${word}” again`,
};
