/** A sheet as it was read: a head and rows of cells, all as text, just as wide as the head. */
export interface Table {
  columns: string[];
  rows: string[][];
  /** Rows (numbered as in the file, head = 1) that had more or fewer cells than the head. */
  unevenRows: number[];
}

/** What a column of a sheet is for. */
export type ColumnRole =
  'id' | 'question' | 'category' | 'number' | 'date' | 'yes_no' | 'weight' | 'leave_out';

/** The number of a data row in the file, as a spreadsheet program shows it. */
export const rowNumber = (index: number): number => index + 2;
