/** studyFile/openCopy.ts, studyFile/routes.ts */
export const studyFileTexts = {
  noZip: 'it is no file that a study was saved in, or it is damaged.',
  noStudy: 'it does not say which study it holds.',
  otherTables: 'some of its parts are missing.',
  changed: (table: string) => `“${table}” is not as it was saved (its checksum differs).`,
  badRow: (table: string, line: number) => `row ${line} of “${table}” cannot be read.`,
  doesNotFit: 'something in it refers to nothing, or is not what it should be.',
};

/** studyFile/mergeCopy.ts */
export const mergeTexts = {
  merging: (savedAt: string, people: readonly string[]) =>
    `merging the copy saved on ${savedAt.slice(0, 10)}${people.length > 0 ? ` (${people.join(', ')})` : ''}`,
};
