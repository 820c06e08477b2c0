import { asPercent, counted } from '../lib/numbers.js';

/** assistant/helpDrawer.tsx */
export const helpDrawerTexts = {
  help: 'what may help',
  gist: 'What it comes to',
  gistWhy: 'The line that stands nearest to the whole answer.',
  words: 'Words',
  perhaps: (suggestions: string) =>
    suggestions === '' ? 'in no dictionary' : `perhaps ${suggestions}`,
  bearing: 'What bears on the study',
  on: { purpose: 'nearest to the purpose', question: 'nearest to the question' },
  codes: 'Codes that may fit',
  none: 'Nothing that was coded is like this answer yet.',
  share: (share: number, compared: number) =>
    `${asPercent(share, compared)} of what is near has it`,
  give: 'Give',
  given: 'given',
  giveCode: (code: string) => `Give ${code}`,
  keys: 'Digits give the code beside them, to the line above it.',
  from: (assistant: string, compared: number, isMeaning: boolean) =>
    `Worked out on ${assistant} from ${counted(compared, 'line')} coded by hand, compared ${isMeaning ? 'in meaning and by words' : 'by words'}. Nothing left it. It is a proposal: read the answer yourself.`,
  explain: 'Explain a word',
};

/** assistant/explainTerm.tsx */
export const explainTermTexts = {
  term: 'Word',
  meaning: 'What it means here',
  add: 'Explain',
};

/** assistant/glossaryList.tsx */
export const glossaryListTexts = {
  glossary: 'Glossary',
  why: 'Words that people use and an outsider does not know. They are explained in the help with an answer.',
  remove: 'Remove',
  removeTerm: (term: string) => `Remove ${term}`,
};
