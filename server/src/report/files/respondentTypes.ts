/** A column of the respondent-level file, with what a statistics package should know of it. */
export interface RespondentField {
  name: string;
  type: 'string' | 'number' | 'integer' | 'date';
  title: string;
  description: string;
  /** The values that there are, in their order, with what they are called; none where there are any. */
  values: { value: string | number; label: string }[];
  /** Whether it holds whole answers. */
  isLong?: boolean;
}
export type RespondentValue = string | number | null;

/** Rows in pages: no more than one of them stands in memory. */
export type RespondentPages = AsyncIterable<RespondentValue[][]>;

export interface FileText {
  name: string;
  purpose: string;
  /** What the file holds and leaves out: group, date, questions. */
  description: string;
}
