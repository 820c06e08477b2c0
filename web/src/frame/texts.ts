import type { NextStep } from '@yellow-thread/core/study';
import { asCount, counted, plural } from '../lib/numbers.js';

/** The pages beside the stops, by their address. */
export const asidePages: Record<string, string> = {
  respondents: 'Respondents',
  about: 'Study',
  notes: 'Notes',
  history: 'History',
  groups: 'Groups',
  maps: 'Maps of codes',
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
        sentence: `${counted(step.left, 'answer')} of the sample ${plural(step.left, 'is', 'are')} still to be coded.`,
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
    `You are asked to code ${counted(left, 'answer')} a second time, without seeing how ${plural(left, 'it was', 'they were')} coded.`,
  openReading: 'Code them',
  assigned: (left: number) =>
    `${counted(left, 'answer')} assigned to you ${plural(left, 'is', 'are')} still to be coded.`,
  openAssigned: 'Code them',
  noQuestion: 'This question is not in the study',
  noQuestionWhy: 'It was removed, or the address is wrong. The other questions are listed in Code.',
  noPage: 'There is no page at this address',
  noPageWhy: 'Check the address, or go to your studies.',
  toStudies: 'Go to your studies',
  toStudy: 'Go to the study',
};

/** frame/studyLocation.ts */
export const stopNames = {
  import: 'Import',
  look: 'Look',
  code: 'Code',
  train: 'Train',
  review: 'Review',
  report: 'Report',
};

/** frame/saveStatus.tsx */
export const saveStatusTexts = {
  noConnection: 'no connection',
  waiting: (waiting: number) =>
    `no connection: ${counted(waiting, 'change')} ${plural(waiting, 'waits', 'wait')}`,
  saving: 'saving …',
  saved: 'not saved',
  saved2: 'saved',
};

/** frame/questionBar.tsx */
export const questionBarTexts = {
  questions: 'Questions',
  whatLeftQuestion: 'What is left of this question',
  settledAnswered: (settled: number, decided: number, answered: number) =>
    `${asCount(settled + decided)} settled of ${asCount(answered)} answered`,
  leftModels: (byModel: number) => ` · ${asCount(byModel)} left to the models`,
  asked: (asked: number) => `· ${asCount(asked)} asked`,
};

/** frame/drawer.tsx */
export const drawerTexts = {
  closeDrawer: 'Close the drawer',
};

/** frame/keys.tsx */
export const keysTexts = {
  keys: 'Keys',
  here: 'Here',
  everywhere: 'Everywhere',
};

/** frame/palette.tsx */
export const paletteTexts = {
  goAnything: 'Go to anything',
  stopQuestionCodeAction: 'A stop, question, code or action',
  nothingCalled: 'Nothing is called that.',
  stops: 'Stops',
  respondents: 'Respondents',
  studyPurposeQuestionsWhat: 'Study: purpose, questions, what counts as no answer',
  codebook: 'Codebook',
  groups: 'Groups',
  maps: 'Maps of codes: how codes are related',
  writeUps: 'Write-ups',
  notes: 'Notes',
  secondReadingsHowFar: 'Second readings: how far coders agree',
  teamWhoWorksStudy: 'Team: who works on this study',
  historyWhatChangedWhom: 'History: what was changed, by whom',
  helpGuideTermsStatistics: 'Help: the guide, and the terms of statistics',
  studies: 'Studies',
  questions: 'Questions',
  actions: 'Actions',
  lookOnly: (name: string) => `Look at ${name} only`,
  codes: 'Codes',
};

/** frame/threadRail.tsx */
export const threadRailTexts = {
  codebook: 'Codebook',
  groups: 'Groups',
  notes: 'Notes',
  respondents: 'Respondents',
  team: 'Team',
  study: 'Study',
  percentDone: (round: number) => `, ${round} percent done`,
  ctrlK: 'Ctrl K',
  anything: 'anything',
  keysHere: 'keys here',
};

/** frame/withinBar.tsx */
export const withinBarTexts = {
  lookEverybody: 'Look at everybody',
  only: 'Only',
  respondents: (people: number, respondents: number) =>
    `: ${asCount(people)} of ${asCount(respondents)} respondents`,
};

/** frame/studyFrame.tsx */
export const studyFrameTexts = {
  study: 'the study',
  codebook: 'Codebook',
  yellowThread: (stop: string, data: string) => `${stop} – ${data} – Yellow Thread`,
  secondReadings: 'Second readings',
};

/** frame/notForRole.tsx */
export const notForRoleTexts = {
  notForYou: (role: string) => `You are a ${role} in this study, and this page is for others`,
  askAnOwner: 'What you can do here depends on your role. An owner of the study can change it.',
  nothingYet: 'No answers were imported yet: there is nothing for you to do so far.',
  toYourWork: 'Go to your work',
};

/** frame/noPage.tsx */
export const noPageTexts = {
  yellowThread: (noPage: string) => `${noPage} – Yellow Thread`,
};
