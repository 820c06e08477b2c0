import type { CountingRule } from '@yellow-thread/core/report';
import type { FigureFormat, FigureTable } from '@yellow-thread/core/report';

export interface DraftQuote {
  codeId: string;
  text: string;
  /** The respondent's chosen background: "Tye, 35–44"; blank for none. */
  who: string;
}

/** A table of the write-up with what is to be said of it. */
export interface DraftTable {
  id: string;
  label: string;
  wording: string;
  /** What stands across: "Home"; null for the total alone. */
  across: string | null;
  counts: CountingRule;
  isFinished: boolean;
  /** What it counts, in plain sentences with the base. */
  counting: string;
  /** Whether everything that is settled by hand was drawn at random. */
  isRandom: boolean;
  /** Of whom the percentages are, in words: "people who answered". */
  base: string;
  /** Level of intervals and tests, 0 to 1. */
  level: number;
  /** The test of differences in words; null where nothing is tested. */
  test: string | null;
  weighted: boolean;
  letters: readonly (string | null)[];
  table: FigureTable;
  origins: Record<'hand' | 'accepted' | 'bulk' | 'import' | 'words' | 'notCounted', number>;
  /** How many of the answers were settled with suggestions in view. */
  assisted: number;
  checked: readonly {
    code: string;
    side: 'accepted' | 'refused';
    read: number;
    applies: number;
    interval: readonly [number, number];
  }[];
  /** Codes of which somebody said that the rest does not mention them, and what the models expected of that rest. */
  closed: readonly { code: string; how: 'suggestions' | 'search'; expected: number }[];
  quotes: readonly DraftQuote[];
}

/** A second reading of settled answers, done by somebody who did not see how they were coded. */
export interface DraftAgreement {
  /** The question. */
  label: string;
  reader: string;
  firstCoders: readonly string[];
  /** How many settled answers its own were drawn from. */
  drawnFrom: number;
  /** How many were drawn: more than were coded again where it was ended early; null where that is not known. */
  drawn: number | null;
  /** To how many of its answers both gave exactly the same codes. */
  sameSets: { count: number; n: number };
  kappa: number | null;
  interval: readonly [number, number] | null;
  alphaOfSets: number | null;
  /** Names of codes on which the two agree too little to rest anything on. */
  low: readonly string[];
}

export interface DraftInput {
  study: string;
  purpose: string;
  /** How many people coded. */
  coders: number;
  agreement: readonly DraftAgreement[];
  tables: readonly DraftTable[];
  format: FigureFormat;
}

/** Figures of fewer people than this can be far off. */
export const LOW_BASE = 30;
