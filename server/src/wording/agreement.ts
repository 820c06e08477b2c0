import { counted } from '@yellow-thread/core/text';

/** agreement/readings.ts */
export const readingsTexts = {
  secondReading: 'second reading',
  drawingSecondReading: (answers: number, reader: string) =>
    `drawing ${counted(answers, 'answer')} for a second reading by ${reader}`,
  answerReading: 'answer of this reading',
  secondReadingAnswer: 'the second reading of an answer',
  endingSecondReadingEarly: (reader: string) => `ending the second reading by ${reader} early`,
  removingSecondReading: (reader: string) => `removing the second reading by ${reader}`,
};

/** agreement/comparison.ts */
export const comparisonTexts = {
  decidingApplies: (code: string) => `deciding that “${code}” applies`,
  decidingApply: (code: string) => `deciding that “${code}” does not apply`,
};
