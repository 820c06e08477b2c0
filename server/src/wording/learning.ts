/** learning/runs.ts */
export const runsTexts = {
  trainingRun: 'training run',
};

/** learning/strike.ts */
export const strikeTexts = {
  everyCode: 'every code',
  strikingOut: (word: string, value: string) => `striking “${word}” out for ${value}`,
  bringingBack: (word: string) => `bringing “${word}” back`,
};
