/** history/historyPage.tsx */
export const historyPageTexts = {
  history: 'History',
  about: 'about',
  everything: 'everything',
  by: 'by',
  anybody: 'anybody',
  undoMyLast: 'Undo my last',
  redo: 'Redo',
  everybodyUndoesOwnChanges:
    'Everybody undoes their own changes, latest first, also after closing the page. Where somebody else went on from a change since, undoing it is refused and says so.',
};

/** history/changeList.tsx */
export const changeListTexts = {
  answerSettledOpened: 'answer settled or opened',
  answersSettledOpened: 'answers settled or opened',
  cluster: 'cluster of answers',
  clusters: 'clusters of answers',
  history: 'the history',
  nothingChangedYet: 'Nothing was changed yet.',
  undone: ' undone',
  showEarlierOnes: 'Show earlier ones',
};
