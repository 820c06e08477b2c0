import type { Picture } from '@yellow-thread/contract';
import { pictureGridTexts } from '../wording/report.js';
import type { Grid } from '../report/index.js';

/** What a chart draws, as a table; null for one that was kept without its figures. */
export function pictureGrid({ alt, figures }: Picture): Grid | null {
  if (!figures) return null;
  const { columns, rows } = figures;
  return {
    name: pictureGridTexts.name,
    facts: [[pictureGridTexts.chart, alt]],
    columns: columns.map((head, c) => ({ head, format: c === 0 ? 'text' : 'percent' })),
    rows: rows.map((row) => columns.map((_, c) => row[c] ?? null)),
    heads: rows.map(() => false),
  };
}

/** What stands in a file of tables where there are none: a workbook must have a worksheet. */
export const emptyGrid = (name: string): Grid => ({
  name: pictureGridTexts.none,
  facts: [[name, pictureGridTexts.noTable]],
  columns: [],
  rows: [],
  heads: [],
});
