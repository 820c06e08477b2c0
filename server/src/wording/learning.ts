/** learning/runs.ts */
export const runsTexts = {
  trainingRun: 'training run',
};

/** learning/strike.ts */
export const strikeTexts = {
  everyCode: 'every code',
  strikingOut: (word: string, value: string) => `excluding “${word}” for ${value}`,
  bringingBack: (word: string) => `including “${word}” again`,
};
