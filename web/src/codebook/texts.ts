import { asCount, counted } from '../parts/numbers.js';

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

/** codebook/codeDeeds.tsx */
export const codeDeedsTexts = {
  what: 'What to do with it',
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
  countingWhatHangs: 'Counting what hangs on it …',
  mentionCounted: (mentions: number) => counted(mentions, 'mention'),
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  goOverGoneText: (hanging: string, into: string, code: string) =>
    `${hanging} go over to “${into}”, and “${code}” is gone. The text of “${into}” stays.`,
  goesAnswersStaySettled: (code: string, hanging: string) =>
    `“${code}” goes with ${hanging}. Answers stay settled as they are.`,
  wouldStandTwiceSame: (double: number) =>
    ` ${counted(double, 'mention')} would stand twice at the same place and become one.`,
  noLongerOffered: (suggestions: number) =>
    ` ${counted(suggestions, 'open suggestion')} of it ${suggestions === 1 ? 'is' : 'are'} no longer offered.`,
  ctrlZTakesBack: 'Ctrl Z takes it back as one.',
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
  modelsLearnWordsToo: 'The models learn from these words too: say them as your respondents would.',
  offeredWhileCoding: 'Offered while coding',
  bundles: 'In the bundles',
  notesCode: 'Notes on the code',
  notes: 'Notes',
  noteCode: 'A note on this code',
  whatDoneCodeWhom: 'What was done with this code, and by whom',
  keyWhileCodingYou: 'Key while coding, for you',
  none: 'none',
  taken: ' (taken)',
};

/** codebook/codeRows.tsx */
export const codeRowsTexts = {
  peopleCounted: (people: number) => counted(people, 'person', 'people'),
  mentionCounted: (mentions: number) => counted(mentions, 'mention'),
};

/** codebook/inAndOut.tsx */
export const inAndOutTexts = {
  csv: 'CSV',
  xlsx: 'XLSX',
  html: 'HTML',
  docx: 'DOCX',
  refiQdaQdc: 'REFI-QDA (.qdc)',
  out: 'In and out',
  file: 'As a file',
  download: 'Download:',
  codeListsFile: 'A code list’s file',
  bringCodeList: 'Bring a code list in …',
  already: 'there already',
  alreadyBlankTextsFilled: 'there already; blank texts are filled in',
  blankTextsFilled: (fresh: number, newThemes: number, filled: number) =>
    `${counted(fresh, 'new code')}, ${counted(newThemes, 'new theme')}, ${counted(filled, 'code')} with blank texts filled in`,
  codesPutIntoBundles: (newBundles: number, intoBundles: number) =>
    `, ${counted(newBundles, 'new bundle')}, codes put into bundles ${counted(intoBundles, 'time')}`,
  whatYouWroteYourself: '. What you wrote yourself stays.',
  take: 'Take it in',
  in: (bundles: string) => `in ${bundles}`,
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
    `takes in ${counted(codes, 'code')} with ${counted(mentions, 'mention')} of ${counted(people, 'person', 'people')}; two at the same place become one`,
  removeTheme: 'Remove the theme',
  stayMentionsWithoutTheme: (codes: number) =>
    `its ${counted(codes, 'code')} stay, with their mentions, without a theme`,
};

/** codebook/codebookPage.tsx */
export const codebookPageTexts = {
  order: 'in their order',
  name: 'by name',
  mostUsedFirst: 'most used first',
  usedLastFirst: 'used last first',
  codeBeforeNextCode: 'code before, next code',
  moveCodeUpDown: 'move the code up or down, across themes',
  codebook: 'the codebook',
  themesCodes: 'Themes and codes',
  codebook2: 'Codebook',
  themeCounted: (themes: number) => counted(themes, 'theme'),
  codeCounted: (codes: number) => counted(codes, 'code'),
  findCode: 'Find a code',
  findCode2: 'find a code …',
  sorted: 'Sorted',
  noCodesYetMake:
    'No codes yet. Make them here, or while you code: a new name makes a new code. Or bring a code list in, below.',
  withoutTheme: 'Without a theme',
  archived: 'Archived',
  whatChangedWhenWhom: 'What was changed, when and by whom',
  code: 'The code',
  textCodeStandsHere: 'The text of a code stands here: what belongs to it, and what does not.',
  nameNewCodeTheme: 'Name of a new code or theme',
  newName: 'a new name',
  addCode: 'Add code',
  addTheme: 'Add theme',
};

/** codebook/slip.tsx */
export const slipTexts = {
  slip: (externalId: string) => `Slip of ${externalId}`,
};

/** codebook/pile.tsx */
export const pileTexts = {
  namePile: (number: number) => `Name of pile ${number}`,
  removePile: (pile: string) => `Remove the pile ${pile}`,
  slipCounted: (slips: number) => counted(slips, 'slip'),
  codeNameTakesThem: ' · a code of this name takes them in',
  takeOff: 'Take it off',
};

/** codebook/dealPage.tsx */
export const dealPageTexts = {
  slipBeforeNextSlip: 'slip before, next slip',
  putSlipPileNumber: 'put the slip on the pile of that number',
  takeOffPile: 'take it off its pile',
  code: 'the code',
  codeGone: 'This code is gone',
  mergedRemoved: 'It was merged or removed.',
  split: (code: string) => `Split “${code}”`,
  nameWhatFallsInto:
    'Name what it falls into, then deal the slips out by number. What stays undealt stays with it.',
  theme: 'the theme',
  themeGone: 'This theme is gone',
  removed: 'It was removed.',
  sortIntoNewCodes: (theme: string) => `Sort “${theme}” into new codes`,
  gatherWhatSaysSame:
    'Gather what says the same into piles and name each: a pile becomes a code of that name. Slips on no pile keep their codes.',
  whatPeopleSaid: 'what people said',
  slips: 'Slips',
  stillDealt: (open: number, mentions: number) =>
    `${counted(open, 'slip')} of ${mentions} still to be dealt`,
  laidOut: 'laid out',
  similarTogether: 'similar together',
  likestLastPileFirst: 'likest to the last pile first',
  imported: 'as imported',
  piles: 'Piles',
  nameNewPile: 'Name of a new pile',
  namePile: 'name a pile …',
  addPile: 'Add pile',
  makeCodes: (dealt: number) => `Make ${counted(dealt, 'slip')} these codes`,
};
