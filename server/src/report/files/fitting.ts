import { workbookTexts } from '../../wording/report.js';

/** The most that a cell of a worksheet may hold, in UTF-16 units. */
const CELL_LENGTH = 32_767;

/** What a cell can hold of a text; one that is longer says so at its end. */
export function fitting(text: string): string {
  if (text.length <= CELL_LENGTH) return text;
  const note = workbookTexts.cut(CELL_LENGTH, text.length);
  const kept = text.slice(0, CELL_LENGTH - note.length);
  // half of a letter is none
  return `${kept.replace(/[\ud800-\udbff]$/u, '')}${note}`;
}
