import type { Correction } from '../statistics/index.js';
import type { BaseKind } from './crosstab.js';

/** Of whom (or what) a percentage is, in words that follow "percent of". */
export const baseWords: Record<BaseKind, string> = {
  settled: 'people with a settled answer',
  answered: 'people who answered',
  asked: 'people who were asked',
  mentions: 'all mentions',
};

/** How tests are corrected for their number, in words. */
export const correctionWords: Record<Correction | 'off', string> = {
  holm: 'Holm-corrected within a row',
  benjamini_hochberg: 'Benjamini–Hochberg-corrected within a row',
  none: 'not corrected',
  off: 'not tested',
};

/** What a column is called by itself, where it may stand within another. */
export const columnName = ({ label, under }: { label: string; under: string | null }): string =>
  under === null ? label : `${under}, ${label}`;
