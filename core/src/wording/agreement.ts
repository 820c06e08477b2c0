/** agreement/readingCoders.ts */
export const readingCodersTexts = {
  firstTime: 'first time',
  secondTime: 'second time',
};
