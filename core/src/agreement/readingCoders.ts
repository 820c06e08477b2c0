import { readingCodersTexts } from '../wording/agreement.js';
/** Who coded the answers of a second reading first, and who once more. */
export interface ReadingCoders {
  reader: string;
  firstCoders: readonly string[];
}

/** Whether a reading compares a person with themselves: that shows how steady they are, not how far two people agree. */
export const isOwnReading = ({ reader, firstCoders }: ReadingCoders): boolean =>
  firstCoders.length === 1 && firstCoders[0] === reader;

/** "Ada", "Ada and Wren", "Ada, Wren and Fern". */
export const listNames = (names: readonly string[]): string =>
  names.length < 2
    ? names.join('')
    : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]!}`;

/** What the two are called beside each other. */
export interface CoderNames {
  first: string;
  second: string;
}

export const coderNames = (reading: ReadingCoders): CoderNames =>
  isOwnReading(reading)
    ? { first: readingCodersTexts.firstTime, second: readingCodersTexts.secondTime }
    : { first: listNames(reading.firstCoders), second: reading.reader };
