import { problems, type Problem } from '../../problems.js';

/** What a workbook holds. */
export interface Worksheets {
  names: string[];
  /** The first with rows enough to be no cover; undefined where none has. */
  firstFilled: () => Promise<string | undefined>;
}

/** More than any survey has. */
export const MOST_WORKSHEETS = 500;
export const tooManyWorksheets = (fileName: string): Problem =>
  problems.unreadableSheet(
    `“${fileName}” has more than ${MOST_WORKSHEETS} worksheets: save the one with the answers by itself.`,
  );

/** Workbooks often begin with a cover: the first worksheet with so many filled rows is taken. */
export const ROWS_OF_FILLED = 2;
export const isFilledRow = (cells: readonly string[]): boolean =>
  cells.filter((cell) => cell.trim() !== '').length > 1;
