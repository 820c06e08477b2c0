/** studyFile/saveCopy.tsx */
export const saveCopyTexts = {
  title: 'Save a copy',
  why: 'The whole study as one file: sheets and their history, answers, codebook, coding with who and when, models and suggestions, groups, write-ups, maps and the change history. It can be opened here or on another machine as a study of its own. It holds what people wrote and their background: keep it as safe as the study.',
  exclude: 'Exclude',
  parts: {
    background: 'what is known of respondents',
    names_in_notes: 'names and addresses in notes',
    history: 'the change history',
  },
  save: 'Save a copy (ZIP)',
};

/** studyFile/openCopy.tsx */
export const openCopyTexts = {
  ask: 'Open a copy of a study …',
  open: 'Open a copy',
  why: 'A study that was saved as a file becomes a study of yours here. The one that it was copied from is not changed.',
  file: 'File of a saved study',
  opening: 'Opening the copy',
  opened: (name: string) => `“${name}” is open.`,
};
