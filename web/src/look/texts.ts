import { asCount, counted, plural } from '../lib/numbers.js';

/** look/lookStop.tsx */
export const lookStopTexts = {
  look: 'Look',
  words: 'Words',
  contrast: 'Groups compared',
  network: 'Words together',
  context: 'In context',
  answers: 'What people say',
  picture: 'the picture',
};

/** look/wordsView.tsx */
export const wordsViewTexts = {
  words: 'the words',
  more: (from: number) => `${from} and more`,
  howLongAnswers: 'How long answers are',
  words2: 'words',
  answers: 'answers',
  outSaySomething: (answered: number) =>
    `Out of ${counted(answered, 'answer')} that say something.`,
  wordsPeopleUse: 'Words people use',
  wordsQuestionSetAside:
    'The words of the question are set aside. Pick a word to read its answers.',
  alsoSetAside: 'Also set aside:',
  phrases: 'Phrases people use',
  wordsMeetMoreThan: 'Words that stand side by side more often than by chance.',
};

/** look/termLists.tsx */
export const termListsTexts = {
  forms: (forms: number) => `${forms} forms`,
  formsOf: (forms: number, word: string) => `${forms} forms of ${word}`,
  setAsideWord: (word: string) => `Set ${word} aside`,
  setAside: 'Set aside',
};

/** look/struckWords.tsx */
export const struckWordsTexts = {
  bringBack: (word: string) => `Bring back ${word}`,
};

/** look/contrastView.tsx */
export const contrastViewTexts = {
  compare: 'Compare',
  with: 'with everybody else',
  whose: 'those of',
  groups: 'Groups',
  mentioned: 'What is mentioned',
  waves: 'Imports',
  background: 'Background',
  choose: 'choose …',
  pickWho: 'Whose words are compared?',
  pickWhoWhy:
    'Choose a category, a group, a theme or a code. Its people’s words are compared with the words of all others who answered.',
  comparison: 'the comparison',
  tooFew: 'Nobody is left to compare',
  tooFewWhy: 'Everybody who answered belongs to these people, or nobody does.',
  more: (name: string) => `${name}: more than all others`,
  less: (name: string) => `${name}: less than all others`,
  nothing: 'No word differs more than chance would explain.',
  word: 'Word or phrase',
  share: (people: number) => `of these ${asCount(people)}`,
  rest: (people: number) => `of all ${asCount(people)} others`,
  ratio: 'log ratio',
  likelihood: 'G²',
  p: 'p, corrected',
  about: (compared: number) =>
    `${counted(compared, 'word or phrase', 'words and phrases')} of five people or more ${compared === 1 ? 'was' : 'were'} compared. Shown is what, at a false discovery rate of 5%, chance does not explain.`,
  people: 'Counted are people, however often they say a word, without weights.',
  theseSay: (name: string, term: string) => `${name}: ${term}`,
  anyCode: 'any of its codes',
};

/** look/networkView.tsx */
export const networkViewTexts = {
  network: 'the words',
  noCompany: 'No two words stand together more than by chance',
  noCompanyWhy: 'In few or very short answers no company of words can be told from chance.',
  picture: 'Words that stand in one line',
  about: (links: number, lines: number) =>
    `${counted(links, 'link')} between words that stand in one line more often than by chance (${asCount(lines)} lines; G², false discovery rate 10%). The larger a word, the more people use it.`,
  alone: (words: number) => `${counted(words, 'word')} without company`,
  hidden: 'Hidden:',
  whole: 'Whole',
  closer: 'Closer',
  further: 'Further away',
  files: 'Files',
  allFiles: 'This network as a file',
  png: 'Picture, PNG',
  svg: 'Picture, SVG',
  wordsCsv: 'Words, CSV',
  linksCsv: 'Links, CSV',
  topicsCsv: 'Topics, CSV',
  graphml: 'Network, GraphML',
  forDocuments: 'for documents',
  forDrawing: 'for drawing programs',
  forSpreadsheets: 'for spreadsheets',
  forNetworks: 'for programs that read networks',
  by: 'Topics by',
  nothing: 'nothing',
  keys: 'Arrow keys go from word to word, Enter opens its answers, H hides it; + and − zoom, 0 shows the whole.',
};

/** look/networkPicture.tsx */
export const networkPictureTexts = {
  word: (word: string, answers: number, company: string) =>
    `${word}: ${counted(answers, 'person', 'people')}${company === '' ? '' : `; with ${company}`}`,
  name: (words: number, links: number) =>
    `A network of ${counted(words, 'word')} and ${counted(links, 'link')}. The tables below say the same.`,
};

/** look/topicTables.tsx */
export const topicTablesTexts = {
  topics: 'Topics',
  topicsAbout:
    'Words that keep company with each other more than with the rest (Louvain’s method). A person speaks of a topic by using any of its words. A topic is a place to start, not a code.',
  topic: 'Topic',
  people: 'People',
  typical: 'Typical answers',
  words: 'Words',
  modularity: (value: string) => `Modularity ${value}.`,
  gaps: 'Topics that seldom meet',
  gapsAbout:
    'Both are frequent, and fewer people speak of both than would if neither had to do with the other.',
  noGaps: 'No two frequent topics meet less than chance would explain.',
  and: (one: string, other: string) => `${one}  and  ${other}`,
  both: (both: number, expected: string) =>
    `${counted(both, 'person speaks', 'people speak')} of both, ${expected} expected`,
  question: (one: string, other: string) =>
    `A question to ask next (made by a fixed form of words): “When you think of ${one}, what has it to do with ${other}?”`,
  links: 'Links',
  linksAbout: 'Strongest first, by normalised pointwise mutual information (NPMI).',
  lines: 'Lines',
  npmi: 'NPMI',
  out: (answers: number) => `out of ${asCount(answers)}`,
  all: (links: number) => `All ${asCount(links)} links`,
};

/** look/contextView.tsx */
export const contextViewTexts = {
  words: 'Word or phrase',
  places: 'every place',
  find: 'Find',
  sortedBy: 'Sorted by',
  right: 'what follows',
  left: 'what stands before',
  came: 'the order of answers',
  nothing: 'Nobody says that',
  nothingWhy: 'Words are found in any of their forms. Try another word, or fewer of them.',
  begin: 'Which word, in which company?',
  beginWhy: 'Write a word or phrase to see each of its places, one below the other.',
  found: (hits: number, answers: number) =>
    `${counted(hits, 'place')} in ${counted(answers, 'answer')}`,
  first: (shown: number) => `, the first ${asCount(shown)} of them here`,
  code: 'Code these places',
  before: 'before',
  place: 'place',
  after: 'after',
  open: (externalId: string) => `The answer of ${externalId}`,
};

/** look/answersView.tsx */
export const answersViewTexts = {
  typical: 'Answers that stand for most',
  whose: 'Whose',
  everybody: 'everybody’s',
  filtered: 'only those filtered in Code',
  allAgain: 'all again',
  standFor: (chosen: number, share: string, answers: number) =>
    `${plural(chosen, 'This answer stands', `These ${chosen} stand`)} for ${share} of ${counted(answers, 'answer')}; the others are like none of them.`,
  inMeaning: 'Answers are compared by what they mean.',
  byWords: 'Answers are compared by their words: they are not read for meaning.',
  like: (answers: number) => counted(answers, 'answer like it', 'answers like it'),
  alone: 'like no other',
  copy: 'Copy as a quote',
  copied: 'Copied.',
  likeTitle: (text: string) => `Like “${text}”`,
  theTypical: 'the typical answers',
};

/** look/clusterList.tsx */
export const clusterListTexts = {
  all: 'Answers gathered by likeness',
  missed: 'Themes that may have been missed',
  allAbout: (answers: number) =>
    `All ${counted(answers, 'answer')}, as long as nothing is coded; afterwards only those that no code covers.`,
  missedAbout: (answers: number) =>
    `Among ${counted(answers, 'answer')} that no code covers, by hand or above the models’ line.`,
  number: 'How many',
  fitting: (found: number) => `${found}, as many as fit best`,
  asManyAsFit: 'as many as fit best',
  apart: 'further apart',
  together: 'closer together',
  silhouette: (value: string) => `Silhouette ${value}.`,
  compared: (compared: number) => `${counted(compared, 'answer')} could be compared.`,
  gathering: 'the answers',
  many: (answers: number) =>
    `${counted(answers, 'answer')}: gathering all of them takes some seconds, and can be cancelled.`,
  gather: 'Gather them',
  underWay: 'Gathering answers',
  none: 'Nothing is left to be gathered',
  noneWhy: 'Every answer is covered by some code, or was decided about below.',
  answers: (answers: number) => counted(answers, 'answer'),
  edge: 'At its edge:',
  adopt: 'Make it a code …',
  later: 'Later',
  dismiss: 'No theme',
  nameOfCode: 'Name of the code',
  make: 'Make the code',
  cancel: 'Cancel',
  made: (name: string) => `“${name}” is a code now; its answers wait to be checked.`,
  check: 'Check them in Code',
  decided: 'Decided',
  states: { adopted: 'a code', later: 'later', dismissed: 'no theme' },
  bringBack: 'Bring back',
  bringBackName: (name: string) => `Bring back ${name}`,
  aboutAdopting:
    'The code is new and no answer has it yet: each is checked in Code, and given the code by hand.',
};

/** look/answerList.tsx */
export const answerListTexts = {
  answers: 'the answers',
  more: 'More',
};
