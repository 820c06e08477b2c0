import type { Report } from '@yellow-thread/contract';
import { columnName, estimateOf } from '@yellow-thread/core/report';
import type { Fact } from './facts.js';

/** How a number of a table is written where a file can say so. */
export type Format = 'text' | 'count' | 'decimal' | 'percent' | 'p';

export interface GridColumn {
  head: string;
  format: Format;
}
export type GridValue = string | number | null;

/** A table with what it is about, before it is written as any kind of file. */
export interface Grid {
  name: string;
  facts: Fact[];
  columns: GridColumn[];
  /** Shares are between 0 and 1, whatever the file shows. */
  rows: GridValue[][];
  /** Rows that stand by themselves: themes and bundles. */
  heads: boolean[];
}

/** A report as one row a theme or code, with everything that is known of each cell in columns beside each other. */
export function reportGrid(report: Report, facts: Fact[], name: string): Grid {
  const { columns, rows, weighted } = report;
  const hasWhole = rows.some(({ whole }) => whole);
  const hasDifference = rows.some(({ difference }) => difference);
  const estimated = hasEstimates(report);
  const nameOf = new Map(
    rows.filter(({ kind }) => kind !== 'code').map((row) => [row.id, row.name]),
  );
  const percent = Math.round(100 * report.level);
  const ofColumn = (column: Report['columns'][number]): GridColumn[] => {
    const { letter } = column;
    const full = columnName(column);
    return [
      { head: `${full}: people`, format: 'count' },
      { head: `${full}: base`, format: 'count' },
      ...(weighted
        ? ([
            { head: `${full}: weighted base`, format: 'decimal' },
            { head: `${full}: effective base`, format: 'decimal' },
          ] as const)
        : []),
      { head: `${full}: percent`, format: 'percent' },
      { head: `${full}: ${percent}% from`, format: 'percent' },
      { head: `${full}: ${percent}% to`, format: 'percent' },
      { head: `${full}: mentions`, format: 'count' },
      ...(letter === null
        ? []
        : [{ head: `${letter} ${full}: higher than`, format: 'text' as const }]),
      ...(report.against === 'rest'
        ? [{ head: `${full}: against everyone else`, format: 'text' as const }]
        : []),
    ];
  };
  return {
    name,
    facts,
    columns: [
      { head: 'Kind', format: 'text' },
      { head: 'Under', format: 'text' },
      { head: 'Name', format: 'text' },
      ...columns.flatMap(ofColumn),
      ...columns
        .filter((_, c) => estimated[c])
        .map(columnName)
        .flatMap((full): GridColumn[] => [
          { head: `${full}: estimated share`, format: 'percent' },
          { head: `${full}: estimated, 95% from`, format: 'percent' },
          { head: `${full}: estimated, 95% to`, format: 'percent' },
        ]),
      ...(hasDifference
        ? ([
            { head: 'Difference', format: 'percent' },
            { head: 'Difference: from', format: 'percent' },
            { head: 'Difference: to', format: 'percent' },
            { head: 'Difference: p', format: 'p' },
          ] as const)
        : []),
      ...(hasWhole
        ? ([
            { head: 'Chi-square', format: 'decimal' },
            { head: 'Chi-square: p', format: 'p' },
            { head: 'Cramér’s V', format: 'decimal' },
          ] as const)
        : []),
    ],
    rows: rows.map((row): GridValue[] => [
      row.kind,
      (row.parentId && nameOf.get(row.parentId)) ?? '',
      row.name,
      ...row.cells.flatMap((cell, c): GridValue[] => [
        cell.people,
        cell.base.people,
        ...(weighted ? [cell.base.weighted, cell.base.effective] : []),
        cell.share,
        cell.interval?.[0] ?? null,
        cell.interval?.[1] ?? null,
        cell.mentions,
        ...(columns[c]!.letter === null ? [] : [cell.exceeds.join(' ')]),
        ...(report.against === 'rest' ? [cell.rest ?? ''] : []),
      ]),
      ...row.cells
        .filter((_, c) => estimated[c])
        .flatMap((cell) => (cell.estimated ? inThree(cell.estimated) : [null, null, null])),
      ...(hasDifference
        ? [
            row.difference?.value ?? null,
            row.difference?.interval[0] ?? null,
            row.difference?.interval[1] ?? null,
            row.difference?.p ?? null,
          ]
        : []),
      ...(hasWhole
        ? [row.whole?.value ?? null, row.whole?.p ?? null, row.whole?.strength ?? null]
        : []),
    ]),
    heads: rows.map(({ kind }) => kind !== 'code'),
  };
}

const places: Record<Exclude<Format, 'text'>, number> = { count: 0, decimal: 3, percent: 2, p: 4 };

/** By column: whether shares are estimated of it. */
export const hasEstimates = ({ columns, rows }: Report): boolean[] =>
  columns.map((_, c) => rows.some(({ cells }) => cells[c]!.estimated !== null));

function inThree(estimated: Parameters<typeof estimateOf>[0]): GridValue[] {
  const { value, interval } = estimateOf(estimated);
  return [value, ...interval];
}

/** A value as a number that people read, rounded: shares as percentages. */
export function rounded(value: GridValue, format: Format): GridValue {
  if (typeof value !== 'number' || format === 'text') return value;
  return Number((format === 'percent' ? 100 * value : value).toFixed(places[format]));
}
