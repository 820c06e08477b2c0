import { problems, type Problem } from '../../wording/problems.js';
import { worksheetsTexts } from '../../wording/sheet.js';

/** What a workbook holds. */
export interface Worksheets {
  names: string[];
  /** The first with rows enough to be no cover; undefined where none has. */
  firstFilled: () => Promise<string | undefined>;
}

/** More than any survey has. */
export const MOST_WORKSHEETS = 500;
export const tooManyWorksheets = (fileName: string): Problem =>
  problems.unreadableSheet(worksheetsTexts.moreWorksheetsSaveOne(fileName, MOST_WORKSHEETS));

/** Workbooks often begin with a cover sheet: the first worksheet with this many filled rows is taken. */
export const ROWS_OF_FILLED = 2;
export const isFilledRow = (cells: readonly string[]): boolean =>
  cells.filter((cell) => cell.trim() !== '').length > 1;
