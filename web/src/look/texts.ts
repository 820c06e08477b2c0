import { counted } from '../lib/numbers.js';

/** look/lookStop.tsx */
export const lookStopTexts = {
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
  bringBack: (word: string) => `Bring back ${word}`,
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
