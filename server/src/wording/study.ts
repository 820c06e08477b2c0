/** respondents/respondents.ts */
export const respondentsTexts = {
  changing: (variable: string, externalId: string) => `changing “${variable}” of ${externalId}`,
};

/** study/studyChanges.ts */
export const studyChangesTexts = {
  settingWordsAside: 'setting words aside',
  changingStudy: 'changing the study',
  changingQuestion: (label: string) => `changing the question “${label}”`,
  orderingQuestions: 'ordering the questions',
};

/** respondents/variableChanges.ts */
export const variableChangesTexts = {
  renaming: (from: string) => `renaming “${from}”`,
  changingCategories: (variable: string) => `changing the categories of “${variable}”`,
  newVariable: (name: string) => `the new variable “${name}”`,
  banding: (source: string) => `banding “${source}”`,
  removing: (variable: string) => `removing “${variable}”`,
};
