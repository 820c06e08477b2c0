/** lib/problem.ts */
export const problemTexts = {
  serverAnswerCheckRuns: 'The server does not answer: check that it runs, then try again.',
  somethingWentWrongPage: 'Something went wrong in this page: reload it, then try again.',
};
