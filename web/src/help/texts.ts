/** help/helpPath.ts */
export const helpPathTexts = {
  jobShort: 'The job in short',
  import: 'Import',
  look: 'Look',
  code: 'Code',
  codebook: 'Codebook',
  train: 'Train',
  review: 'Review',
  report: 'Report',
  secondReadings: 'Second readings',
  groupsRespondents: 'Groups and respondents',
  teamStudies: 'Team and studies',
  termsStatistics: 'Terms of statistics',
};

/** help/helpPage.tsx */
export const helpPageTexts = {
  pagesGuide: 'Pages of the guide',
  guideNoSuchPage: 'The guide has no such page',
  chooseAnotherPageList: 'Choose another page in the list.',
};

/** help/term.tsx */
export const termTexts = {
  whatMeans: 'What this means',
};
