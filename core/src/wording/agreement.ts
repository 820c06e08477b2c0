/** agreement/whoRead.ts */
export const whoReadTexts = {
  firstTime: 'first time',
  secondTime: 'second time',
};
