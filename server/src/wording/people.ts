/** people/accounts.ts */
export const accountsTexts = {
  demoResearcher: 'Demo researcher',
};
