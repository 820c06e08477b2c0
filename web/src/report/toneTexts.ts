import { asCount, asPercent, counted } from '../lib/numbers.js';

/** report/toneView.tsx */
export const toneViewTexts = {
  theTone: 'the tone by theme',
  by: 'By',
  nothing: 'all together',
  check: 'Check lines',
  csv: 'Table (CSV)',
  theme: 'Theme or code',
  positive: 'positive',
  negative: 'negative',
  all: 'All answers',
  people: (people: number, sampled: number) =>
    `${counted(people, 'person', 'people')}, ${asCount(sampled)} read`,
  tooFew: 'too few read',
  interval: (low: number, high: number, base: number) =>
    `${asPercent(low, base)}–${asPercent(high, base)}`,
  notYet: 'Nothing can be said of tone yet',
  notYetWhy: (read: number, answers: number) =>
    answers === 0
      ? 'Draw a random sample of answers and read their lines for tone: the table rests on it.'
      : `${asCount(read)} of ${counted(answers, 'answer')} of the random sample are read. The table is made when all are.`,
  about: (sample: number, fewest: number, withModels: boolean) =>
    `Shares of the people who mention a theme in at least one line of that tone; a person may be both. Estimated from ${counted(sample, 'answer')} drawn at random and read by people${withModels ? ', put right by the study’s models of tone (a difference estimate)' : ''}, with 95% intervals. A cell needs ${fewest} of them.`,
};
