import type { NextStep } from '@yellow-thread/core/study';
import { counted } from '../parts/numbers.js';

/** The pages beside the stops, by their address. */
export const asidePages: Record<string, string> = {
  respondents: 'Respondents',
  about: 'Study',
  notes: 'Notes',
  history: 'History',
  groups: 'Groups',
  'write-ups': 'Write-ups',
  team: 'Team',
  help: 'Help',
};

/** What to do next: a sentence, and what the button says. */
export function nextStepWords(step: NextStep): { sentence: string; button: string } {
  switch (step.do) {
    case 'look':
      return {
        sentence:
          'The answers are in. Before coding, see how long they are and which words people use.',
        button: 'Go to Look',
      };
    case 'draw sample':
      return {
        sentence: 'Draw a random sample to code by hand: estimates for everybody can rest on it.',
        button: 'Draw a sample',
      };
    case 'code sample':
      return {
        sentence: `${counted(step.left, 'answer')} of the sample ${step.left === 1 ? 'is' : 'are'} still to be coded.`,
        button: 'Go on coding',
      };
    case 'train':
      return {
        sentence: 'Enough is coded to train models that suggest codes for the rest.',
        button: 'Go to Train',
      };
    case 'review':
      return {
        sentence: `The models suggest ${counted(step.open, 'code')} for answers that nobody has coded. Check them.`,
        button: 'Go to Review',
      };
    case 'report':
      return {
        sentence: 'See how often each theme is mentioned, by question and group.',
        button: 'Go to Report',
      };
  }
}

export const frameTexts = {
  product: 'Yellow Thread',
  allStudies: 'Studies',
  stops: 'Stops of the study',
  hideNextSteps: 'Hide these hints',
  secondReading: (left: number) =>
    `You are asked to code ${counted(left, 'answer')} a second time, without seeing how ${left === 1 ? 'it was' : 'they were'} coded.`,
  openReading: 'Code them',
  noQuestion: 'This question is not in the study',
  noQuestionWhy: 'It was removed, or the address is wrong. The other questions are listed in Code.',
  noPage: 'There is no page at this address',
  noPageWhy: 'Check the address, or go to your studies.',
  toStudies: 'Go to your studies',
  toStudy: 'Go to the study',
};
