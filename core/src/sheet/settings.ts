import type { AsideMarks } from '../text/index.js';
import type { Writing } from './values.js';

/** Kinds of background variables. */
export type BackgroundKind = 'category' | 'number' | 'date' | 'yes_no';
export type BackgroundValue = string | number | boolean;

/**
 * What a column of a sheet is for. `ticked` is a tick box of its own column, where blank means no;
 * `choices` holds several choices in one cell; both become yes-or-no variables. `codes` holds codes that
 * were given before.
 */
export type ColumnRole =
  'id' | 'question' | BackgroundKind | 'ticked' | 'choices' | 'weight' | 'codes' | 'leave_out';

/** What the researcher decided about one column. */
export interface ColumnSetting {
  role: ColumnRole;
  /**
   * For background: the variable's name. For `question` and `codes`: the wording of the question; several
   * text columns of one wording form one question. Unused otherwise.
   */
  name: string;
  /** For a question "Other, please specify": the closed variable it belongs to; '' for none. */
  of: string;
  /** For `choices` and for `codes` with several names in a cell: what splits them; '' for one a column. */
  separator: string;
  /** For numbers, weights and dates. */
  writing: Writing;
}

/** What to do with several rows of one respondent id. */
export type DuplicateChoice = 'stop' | 'first' | 'last' | 'suffix';

/** Everything that decides what bringing a sheet in will write. */
export interface SheetSettings {
  /**
   * What the rows are: new respondents, more about respondents who are in the study already, or a corrected
   * version of what was imported before.
   */
  as: 'respondents' | 'details' | 'answers' | 'corrections';
  /** Ids of the sheet that mean an id of the study although they are written differently. */
  matches: { from: string; to: string }[];
  columns: ColumnSetting[];
  duplicates: DuplicateChoice;
  /** Variables whose spellings are distinct even where only case or white space differs. */
  keepSpellings: string[];
  /** What counts as no answer, as a person writes it ("n/a"); compared without case and end punctuation. */
  noAnswers: string[];
  /** Of these, what is an answer to one question after all. */
  answersDespite: { question: string; text: string }[];
  asides: AsideMarks;
  /** Name of the wave that these respondents belong to; '' for none. */
  wave: string;
}

/** What is known of a column before and after its head was joined from two rows. */
export interface HeadColumn {
  /** What the column is called: the wording where there is one. Different for every column. */
  name: string;
  /** The short code that stood above the wording; '' for none. */
  code: string;
}

export const isBackground = (role: ColumnRole): role is BackgroundKind =>
  role === 'category' || role === 'number' || role === 'date' || role === 'yes_no';
