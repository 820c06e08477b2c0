import { asCount, asDate, asList, counted } from '../lib/numbers.js';

export const studyTexts = {
  archive: 'Archive the study',
  unarchive: 'Unarchive it',
  archiveWhy:
    'An archived study stays as it is. The list of studies shows it only on request, to everybody in the team.',
  isArchived: 'This study is archived.',
  delete: 'Delete the study',
  deleteOpen: 'Delete the study …',
  deleteWhat: (
    study: { respondents: number; answers: number; questions: number },
    team: readonly string[],
  ) =>
    `This deletes everything in it: ${counted(study.respondents, 'respondent')}, ${counted(study.answers, 'answer')} to ${counted(study.questions, 'question')}, the codebook and all coding, models, groups, write-ups, the imported files and the history. ${team.length > 0 ? `It is deleted for ${asList(team)} as well. ` : ''}It cannot be undone, and nothing can be restored.`,
  deleteName: (name: string) => `Type the name of the study to delete it: ${name}`,
  deleteNameLabel: 'Name of the study',
  keep: 'Keep it',
  deleted: (name: string) => `“${name}” was deleted.`,
  shareSettled: (settled: number, answered: number) =>
    `${asCount(settled)} of ${asCount(answered)} settled`,
};

/** study/studyList.tsx */
export const studyListTexts = {
  lastOpenedFirst: 'last opened first',
  name: 'by name',
  newestFirst: 'newest first',
  studiesYellowThread: 'Studies – Yellow Thread',
  studies: 'Studies',
  password: 'Password and sessions',
  signOut: 'Sign out',
  yourStudies: 'your studies',
  yourStudies2: 'Your studies',
  findStudy: 'Find a study',
  order: 'Order',
  noStudyWordsName: 'No study has these words in its name.',
  hide: 'Hide',
  show: 'Show',
  archivedStudiesCounted: (archived: number) =>
    counted(archived, 'archived study', 'archived studies'),
  openedYet: 'not opened yet',
  nothingImportedYet: 'Nothing imported yet',
  respondentCounted: (respondents: number) => counted(respondents, 'respondent'),
  with: (team: readonly string[]) => ` · with ${asList(team)}`,
  newStudy: 'New study',
  name2: 'Name',
  purpose: 'Purpose',
  researchQuestionSentenceTwo: 'The research question in a sentence or two.',
  createStudy: 'Create study',
  opened: (openedAt: string) => `opened ${asDate(openedAt)}`,
};

/** study/studyOpened.tsx */
export const studyOpenedTexts = {
  study: 'the study',
};

/** study/endStudy.tsx */
export const endStudyTexts = {
  archiveDelete: 'Archive or delete',
};

/** study/studyPage.tsx */
export const studyPageTexts = {
  study: 'The study',
  name: 'Name',
  purpose: 'Purpose',
  researchQuestionSentenceTwo: 'The research question in a sentence or two.',
  interviewersWordsInsideAnswers: 'Interviewer’s words inside answers',
  whatMarkedSaidSomebody:
    'What is marked as said by somebody else is shown dimmed, and is neither coded nor counted.',
  questions: 'Questions',
  wordingAskedShortLabel:
    'The wording as it was asked, and a short label to tell the questions apart.',
  wording: 'Wording',
  shortLabel: 'Short label',
  asked: (answered: number, asked: number) =>
    `${counted(answered, 'answer')} of ${counted(asked, 'person', 'people')} asked`,
  whatOther: (value: string) => `; what “other” in ${value} is`,
  whatCountsNoAnswer: 'What counts as no answer',
  oneLineCasePunctuation: 'One a line; case and punctuation at the end do not matter',
  blankResponsesNeverCount:
    'Blank responses never count. Responses that are coded or settled stay answers.',
  nowCountNoAnswer: (becameNoAnswers: number, becameAnswers: number, keptCoded: number) =>
    `${counted(becameNoAnswers, 'response')} now count as no answer, ${becameAnswers} count as answers again${keptCoded > 0 ? `; coded ones stay answers (${asCount(keptCoded)})` : ''}.`,
  sortResponsesList: 'Sort the responses by this list',
};
