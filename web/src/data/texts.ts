/** data/client.ts */
export const clientTexts = {
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
