import { asCount, counted, plural } from '../lib/numbers.js';

/** codebook/bundles.tsx */
export const bundlesTexts = {
  bundles: 'Bundles',
  bundleGathersCodesSeveral:
    'A bundle gathers codes from several themes for a purpose. A code may be in several.',
  codeCounted: (codeIds: number) => counted(codeIds, 'code'),
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  remove: 'remove',
  nameNewBundle: 'Name of a new bundle',
  newBundle: 'a new bundle',
  addBundle: 'Add bundle',
};

/** codebook/codeActions.tsx */
export const codeActionsTexts = {
  what: 'Actions',
  mergeInto: 'Merge into',
  mergeInto2: 'merge into …',
  split: 'Split …',
  makeTheme: 'Make it a theme',
  bringBack: 'Bring back',
  archive: 'Archive',
  remove: 'Remove …',
  mergeInto3: (into: string) => `Merge into “${into}”`,
  remove2: (code: string) => `Remove “${code}”`,
  cancel: 'Cancel',
  countingWhatHangs: 'Counting its mentions …',
  mentionCounted: (mentions: number) => counted(mentions, 'mention'),
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  goOverGoneText: (hanging: string, into: string, code: string) =>
    `${hanging} move to “${into}”, and “${code}” is removed. The definition of “${into}” stays.`,
  goesAnswersStaySettled: (code: string, hanging: string) =>
    `“${code}” is removed with ${hanging}. Settled answers stay settled.`,
  wouldStandTwiceSame: (double: number) =>
    ` ${counted(double, 'mention')} would be duplicates at the same place and become one.`,
  noLongerOffered: (suggestions: number) =>
    ` ${counted(suggestions, 'open suggestion')} of it ${plural(suggestions, 'is', 'are')} no longer offered.`,
  ctrlZTakesBack: 'Ctrl Z undoes it in one step.',
  by: (mentionCounted: string, peopleCounted: string) => `${mentionCounted} by ${peopleCounted}`,
};

/** codebook/codeMentions.tsx */
export const codeMentionsTexts = {
  mentions: 'Mentions',
  whatPeopleSaid: 'What people said',
  nothingYet: 'Nothing yet.',
  example: 'example',
  makeExample: 'make example',
  showMore: (all: number) => `Show more of ${asCount(all)}`,
  more: ' and more',
};

/** codebook/codeEditor.tsx */
export const codeEditorTexts = {
  definitionWhatBelongsHere: 'Definition: what belongs here',
  include: 'Include',
  exclude: 'Exclude',
  allQuestions: (people: number, mentions: number) =>
    `${counted(people, 'person', 'people')}, ${counted(mentions, 'mention')} in all questions`,
  archived: ' · archived',
  name: 'Name',
  theme: 'Theme',
  noneYet: 'none yet',
  modelsLearnWordsToo:
    'The models learn from these words too: write them the way your respondents speak.',
  offeredWhileCoding: 'Offered while coding',
  bundles: 'In the bundles',
  notesCode: 'Notes on the code',
  notes: 'Notes',
  noteCode: 'A note on this code',
  whatDoneCodeWhom: 'What was changed in this code, and by whom',
  keyWhileCodingYou: 'Your key for it while coding',
  none: 'none',
  taken: ' (taken)',
};

/** codebook/codeRows.tsx */
export const codeRowsTexts = {
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  mentionCounted: (mentions: number) => counted(mentions, 'mention'),
};

/** codebook/themeHead.tsx */
export const themeHeadTexts = {
  nameTheme: (theme: string) => `Name of the theme ${theme}`,
  peopleCountedOnceMentions: 'people, counted once · mentions',
  moreAbout: (theme: string) => `More about ${theme}`,
  colourCodes: 'Colour of its codes',
  stitch: 'Stitch',
  moveUp: 'Move up',
  moveDown: 'Move down',
  sortIntoNewCodes: (mentions: number) =>
    `Sort its ${counted(mentions, 'mention')} into new codes …`,
  makeOneCode: 'Make it one code',
  takesTwoSamePlace: (codes: number, mentions: number, people: number) =>
    `merges ${counted(codes, 'code')} with ${counted(mentions, 'mention')} of ${counted(people, 'person', 'people')}; duplicates at the same place become one`,
  removeTheme: 'Remove the theme',
  stayMentionsWithoutTheme: (codes: number) =>
    `its ${counted(codes, 'code')} stay, with their mentions, without a theme`,
  ink: (ink: string) => `Ink ${ink}`,
  stitch2: (stitch: string) => `Stitch ${stitch}`,
};

/** codebook/codebookPage.tsx */
export const codebookPageTexts = {
  order: 'in codebook order',
  name: 'by name',
  mostUsedFirst: 'most used first',
  usedLastFirst: 'last used first',
  codebook: 'the codebook',
  themesCodes: 'Themes and codes',
  codebook2: 'Codebook',
  maps: 'Maps of codes',
  themeCounted: (themes: number) => counted(themes, 'theme'),
  codeCounted: (codes: number) => counted(codes, 'code'),
  findCode: 'Find a code',
  findCode2: 'find a code …',
  sorted: 'Sorted',
  noCodesYetMake:
    'No codes yet. Make them here, or while you code: a new name makes a new code. Or import a code list below.',
  withoutTheme: 'Without a theme',
  archived: 'Archived',
  whatChangedWhenWhom: 'What was changed, when and by whom',
  code: 'The code',
  textCodeStandsHere: 'Choose a code to see its definition: what belongs to it, and what does not.',
  nameNewCodeTheme: 'Name of a new code or theme',
  newName: 'a new name',
  addCode: 'Add code',
  addTheme: 'Add theme',
};

/** codebook/mentionCard.tsx */
export const mentionCardTexts = {
  mention: (externalId: string) => `Mention of ${externalId}`,
};

/** codebook/pile.tsx */
export const pileTexts = {
  namePile: (number: number) => `Name of pile ${number}`,
  removePile: (pile: string) => `Remove the pile ${pile}`,
  mentionCounted: (mentions: number) => counted(mentions, 'mention'),
  codeNameTakesThem: ' · joins the code of this name',
  takeOff: 'Remove from the pile',
  pile: (pile: string) => `Pile ${pile}`,
};

/** codebook/sortPage.tsx */
export const sortPageTexts = {
  code: 'the code',
  codeGone: 'This code does not exist any more',
  mergedRemoved: 'It was merged or removed.',
  split: (code: string) => `Split “${code}”`,
  nameWhatFallsInto:
    'Name the new codes, then sort the mentions into them by number. Mentions that you do not sort stay with the code.',
  theme: 'the theme',
  themeGone: 'This theme does not exist any more',
  removed: 'It was removed.',
  sortIntoNewCodes: (theme: string) => `Sort “${theme}” into new codes`,
  gatherWhatSaysSame:
    'Sort mentions that say the same into piles and name each: a pile becomes a code of that name. Mentions on no pile keep their codes.',
  whatPeopleSaid: 'what people said',
  mentions: 'Mentions',
  stillToSort: (open: number, mentions: number) =>
    `${counted(open, 'mention')} of ${asCount(mentions)} still to be sorted`,
  order: 'order',
  similarTogether: 'similar together',
  similarToLastPile: 'most similar to the last pile first',
  imported: 'as imported',
  piles: 'Piles',
  nameNewPile: 'Name of a new pile',
  namePile: 'name a pile …',
  addPile: 'Add pile',
  makeCodes: (sorted: number) => `Make these codes from ${counted(sorted, 'mention')}`,
};
