import { asCount, asList, counted } from '../parts/numbers.js';

export const studyTexts = {
  archive: 'Archive the study',
  unarchive: 'Bring it back',
  archiveWhy:
    'An archived study stays as it is. The list of studies shows it only on request, to everybody in the team.',
  isArchived: 'This study is archived.',
  delete: 'Delete the study',
  deleteOpen: 'Delete the study …',
  deleteWhat: (
    study: { respondents: number; answers: number; questions: number },
    team: readonly string[],
  ) =>
    `All of it goes: ${counted(study.respondents, 'respondent')}, ${counted(study.answers, 'answer')} to ${counted(study.questions, 'question')}, the codebook and all coding, models, groups, write-ups, the imported files and the history. ${team.length > 0 ? `It goes for ${asList(team)} as well. ` : ''}It cannot be undone, and nothing can be restored.`,
  deleteName: (name: string) => `Type the name of the study to delete it: ${name}`,
  deleteNameLabel: 'Name of the study',
  keep: 'Keep it',
  deleted: (name: string) => `“${name}” was deleted.`,
  shareSettled: (settled: number, answered: number) =>
    `${asCount(settled)} of ${asCount(answered)} settled`,
};
