/** What says what a code is; its theme by its id. */
export interface CodeFields {
  name: string;
  themeId: string | null;
  definition: string;
  include: string;
  exclude: string;
  archived: boolean;
}

/** A code given to an answer. */
export interface GivenCode {
  /** The answer, by the same number on both sides. */
  answer: number;
  codeId: string;
  /** Who gave it, by the same name on both sides. */
  coder: string;
  /** The passage in UTF-16 units, end exclusive; null for the whole answer. */
  start: number | null;
  end: number | null;
  typical: boolean;
}

/** That somebody was done with an answer. */
export interface SettledAnswer {
  answer: number;
  coder: string;
}

/** A text somebody wrote on an answer, a respondent or a code. */
export interface WrittenNote {
  codeId: string | null;
  text: string;
  unsure: boolean;
}

/**
 * The coding of one of two copies of a study that were worked on apart. Ids of themes, codes, mentions and notes are
 * those that they had when the copies parted, or were given since.
 */
export interface Coding {
  themes: ReadonlyMap<string, { name: string }>;
  codes: ReadonlyMap<string, CodeFields>;
  mentions: ReadonlyMap<string, GivenCode>;
  settlements: readonly SettledAnswer[];
  notes: ReadonlyMap<string, WrittenNote>;
}

/** What was done to one of the copies since they parted; empty where that is not known. */
export interface SinceParted {
  /** Ids of records that were changed. */
  edited: ReadonlySet<string>;
  /** Ids of records that were removed. */
  removed: ReadonlySet<string>;
  /** Codes that were merged, and into which. */
  mergedInto: ReadonlyMap<string, string>;
}

export type CodingSide = Coding & SinceParted;

export const keyOfSettled = ({ answer, coder }: SettledAnswer): string => `${answer} ${coder}`;

/** Names are compared as the database compares them. */
export const foldedName = (name: string): string => name.trim().toLowerCase();
