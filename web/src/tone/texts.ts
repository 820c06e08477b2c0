import type { Tone } from '@yellow-thread/contract';
import { asCount, asDate, asPercent, asShare, counted } from '../lib/numbers.js';

export const toneNames: Record<Tone, string> = {
  positive: 'positive',
  negative: 'negative',
  mixed: 'mixed',
  none: 'neither',
};

/** tone/tonePage.tsx */
export const tonePageTexts = {
  tone: 'Tone',
  theTone: 'the tone of lines',
  views: 'Ways to check',
  proposals: 'Strongest first',
  sample: 'Random sample',
  limits: {
    lexicon:
      'Proposed by the rated words of a published lexicon (VADER, Hutto and Gilbert 2014). Irony is not seen.',
    models:
      'Proposed by models that learnt from what was checked here, with the rated words of a published lexicon (VADER, Hutto and Gilbert 2014) as one sign among others. Irony is seldom seen.',
  },
  more: 'What it does and does not see',
  about:
    'Negation, “very” and “but” are weighed. It does not see irony (“oh great, another delay”), nor what is bad only here (“the queue”), and it reads English alone. Nothing of it enters a report before people have read a random sample.',
  lines: (lines: number, checked: number) =>
    `${counted(lines, 'line')}, ${asCount(checked)} checked.`,
  agreed: (right: number, of: number) =>
    of === 0
      ? ''
      : `The lexicon was right in ${asPercent(right / of, of)} of the ${asCount(of)} where it sees a tone.`,
  proposed: (source: 'lexicon' | 'models', counts: Record<Tone, number>) =>
    `Of the others ${source === 'lexicon' ? 'the lexicon takes' : 'the models take'} ${asCount(counts.positive)} to be positive, ${asCount(counts.negative)} negative, ${asCount(counts.mixed)} mixed.`,
  report: 'Tone by theme and group',
  train: 'Train on what was checked',
  training: 'Training the models of tone',
  trained: (at: string, checked: number, since: number) =>
    `Trained ${asDate(at)} on ${counted(checked, 'checked line')}${since > 0 ? `, ${asCount(since)} since` : ''}.`,
  notTrained: 'Not trained yet: check some lines, then train models that read as this study does.',
  tooFew: (tone: string) => `${tone}: too few examples for a model`,
  right: 'right',
  found: 'found',
};

/** tone/toneLines.tsx */
export const toneLinesTexts = {
  howMany: 'At a time',
  next: (left: number) => `Next ${asCount(left)}`,
  noneProposed: 'Nothing is proposed any more',
  noneProposedWhy: 'Every line that words or models take to have a tone is checked.',
  list: 'Lines to be checked',
  checkKeys: 'Enter right · x the other way · p positive · n negative · m mixed · 0 neither',
  readKeys: 'p positive · n negative · m mixed · 0 neither',
  sofar: (done: number, of: number) => `${asCount(done)} of ${asCount(of)}`,
  strength: (tone: string, strength: number) => `${tone}, ${asShare(strength)}`,
  draw: (size: number) => `Draw ${asCount(size)} answers`,
  size: 'Answers',
  noSample: 'Draw answers at random and read their lines',
  noSampleWhy:
    'What is reported rests on answers that were drawn at random and read line by line, without a proposal in view. A theme or group needs ten of them.',
  readAll: (answers: number) =>
    `All ${counted(answers, 'answer')} of the sample are read. Draw more for narrower intervals.`,
  sampleStands: (read: number, answers: number) =>
    `${asCount(read)} of ${counted(answers, 'answer')} read to the last line`,
};

/** tone/commands.ts */
export const toneCommandTexts = {
  line: 'line before, next line',
  right: 'the proposal is right',
  other: 'the other way: negative for positive',
  positive: 'positive',
  negative: 'negative',
  mixed: 'mixed: both in one line',
  none: 'neither',
};
