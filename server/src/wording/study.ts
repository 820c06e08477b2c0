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

/** personalData/ */
export const personalDataTexts = {
  deleting: 'deleting a respondent for good',
  ofDeleted: 'changing what is known of a respondent who was deleted',
  deleted: 'deleted',
  wordsRemoved: '[words of a respondent who was deleted]',
  masking: 'masking names for readers',
  unmasking: 'showing readers names as they are',
  fileName: 'personal data',
};
