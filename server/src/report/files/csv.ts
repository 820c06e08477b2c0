import { writeCsv } from '@yellow-thread/core/exchange';
import { rounded, type Grid } from './grid.js';

/** The head of a column whose numbers are written as percentages. */
const asPercentHead = (head: string): string =>
  head.endsWith(': percent') ? head.replace(/percent$/u, '%') : `${head} (%)`;

/** Tables as CSV, one below the other, each under what it is about. */
export function gridsAsCsv(grids: readonly Grid[]): string {
  const parts = grids.map(({ facts, columns, rows }) => [
    ...facts,
    [],
    columns.map(({ head, format }) => (format === 'percent' ? asPercentHead(head) : head)),
    ...rows.map((row) => row.map((value, c) => rounded(value, columns[c]!.format))),
  ]);
  return `\uFEFF${writeCsv(parts.flatMap((part, p) => (p > 0 ? [[], ...part] : part)))}`;
}
