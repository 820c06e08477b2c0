/** data/client.ts */
export const clientTexts = {
  serverAnswerCheckRuns: 'The server does not answer: check that it runs, then try again.',
  somethingWentWrongPage: 'Something went wrong in this page: reload it, then try again.',
  serverGaveAnswerMakes: 'The server gave an answer that makes no sense here.',
};

/** data/queryClient.ts */
export const queryClientTexts = {
  saved: (sentence: string) => `Not saved: ${sentence}`,
};

/** data/studies.ts */
export const studiesTexts = {
  undid: 'Undid',
  redid: 'Redid',
};

/** data/outbox.ts */
export const outboxTexts = {
  whatSavedWhenPage: 'What was not saved when the page was left is saved now.',
};
