/** assistant/glossary.ts */
export const glossaryTexts = {
  term: (term: string) => `what “${term}” means`,
  removal: (term: string) => `the removal of “${term}” from the glossary`,
};
