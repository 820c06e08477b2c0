import type { Report } from '@yellow-thread/contract';
import { columnName, estimateOf } from '@yellow-thread/core/report';
import type { Fact } from './facts.js';
import { gridTexts } from '../../wording/report.js';

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

type Cell = Report['rows'][number]['cells'][number];

/** A report as one row a theme or code, with everything that is known of each cell in columns beside each other. */
export function reportGrid(report: Report, facts: Fact[], name: string): Grid {
  const { columns, rows, weighted } = report;
  const hasWhole = rows.some(({ whole }) => whole);
  const hasDifference = rows.some(({ difference }) => difference);
  const isEstimated = report.counts === 'estimated';
  const isAtLeast = rows.some((row) => row.isAtLeast);
  const hasRest = report.against === 'rest' && !isEstimated;
  // where everything is estimated, nothing stands beside it
  const estimated = isEstimated ? columns.map(() => false) : hasEstimates(report);
  const nameOf = new Map(
    rows.filter(({ kind }) => kind !== 'code').map((row) => [row.id, row.name]),
  );
  const percent = Math.round(100 * report.level);
  const ofColumn = (column: Report['columns'][number]): GridColumn[] => {
    const { letter } = column;
    const full = columnName(column);
    const higherThan: GridColumn[] =
      letter === null ? [] : [{ head: gridTexts.higher(letter, full), format: 'text' }];
    if (isEstimated)
      return [
        { head: gridTexts.estimatedShare(full), format: 'percent' },
        { head: gridTexts.estimated(full, percent), format: 'percent' },
        { head: gridTexts.estimated2(full, percent), format: 'percent' },
        { head: gridTexts.allWhoAnswered(full), format: 'count' },
        { head: gridTexts.readRandom(full), format: 'count' },
        { head: gridTexts.mention(full), format: 'count' },
        ...higherThan,
      ];
    return [
      { head: gridTexts.people(full), format: 'count' },
      { head: gridTexts.base(full), format: 'count' },
      ...(isAtLeast ? [{ head: gridTexts.undecided(full), format: 'count' as const }] : []),
      ...(weighted
        ? ([
            { head: gridTexts.weightedBase(full), format: 'decimal' },
            { head: gridTexts.effectiveBase(full), format: 'decimal' },
          ] as const)
        : []),
      { head: gridTexts.percent(full), format: 'percent' },
      { head: gridTexts.from(full, percent), format: 'percent' },
      { head: gridTexts.to(full, percent), format: 'percent' },
      { head: gridTexts.mentions(full), format: 'count' },
      ...higherThan,
      ...(hasRest ? [{ head: gridTexts.againstEveryoneElse(full), format: 'text' as const }] : []),
    ];
  };
  const countedIn = ({ people, base, undecided, share, interval, mentions }: Cell): GridValue[] => [
    people,
    base.people,
    ...(isAtLeast ? [undecided] : []),
    ...(weighted ? [base.weighted, base.effective] : []),
    share,
    interval?.[0] ?? null,
    interval?.[1] ?? null,
    mentions,
  ];
  return {
    name,
    facts,
    columns: [
      { head: gridTexts.kind, format: 'text' },
      { head: gridTexts.under, format: 'text' },
      { head: gridTexts.name, format: 'text' },
      // beyond the figures, so that nobody takes what is known so far for all
      ...(isAtLeast ? [{ head: gridTexts.least, format: 'text' as const }] : []),
      ...columns.flatMap(ofColumn),
      ...columns
        .filter((_, c) => estimated[c])
        .map(columnName)
        .flatMap((full): GridColumn[] => [
          { head: gridTexts.estimatedShare(full), format: 'percent' },
          { head: gridTexts.estimated(full, percent), format: 'percent' },
          { head: gridTexts.estimated2(full, percent), format: 'percent' },
        ]),
      ...(hasDifference
        ? ([
            { head: gridTexts.difference, format: 'percent' },
            { head: gridTexts.difference2, format: 'percent' },
            { head: gridTexts.difference3, format: 'percent' },
            { head: gridTexts.differenceP, format: 'p' },
          ] as const)
        : []),
      ...(hasWhole
        ? ([
            { head: 'Chi-square', format: 'decimal' },
            { head: gridTexts.chiSquareP, format: 'p' },
            { head: 'Cramér’s V', format: 'decimal' },
          ] as const)
        : []),
    ],
    rows: rows.map((row): GridValue[] => [
      row.kind,
      (row.parentId && nameOf.get(row.parentId)) ?? '',
      row.name,
      ...(isAtLeast ? [row.isAtLeast ? gridTexts.least2 : ''] : []),
      ...row.cells.flatMap((cell, c): GridValue[] => [
        ...(isEstimated
          ? [...inThree(cell.estimated), columns[c]!.answered, ...sampledIn(cell.estimated)]
          : countedIn(cell)),
        ...(columns[c]!.letter === null ? [] : [cell.exceeds.join(' ')]),
        ...(hasRest ? [cell.rest ?? ''] : []),
      ]),
      ...row.cells.filter((_, c) => estimated[c]).flatMap((cell) => inThree(cell.estimated)),
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

function inThree(estimated: Cell['estimated']): GridValue[] {
  if (!estimated) return [null, null, null];
  const { value, interval } = estimateOf(estimated);
  return [value, ...interval];
}

const sampledIn = (estimated: Cell['estimated']): GridValue[] => [
  estimated?.sampled ?? null,
  estimated?.mentioned ?? null,
];

/** A value as a number that people read, rounded: shares as percentages. */
export function rounded(value: GridValue, format: Format): GridValue {
  if (typeof value !== 'number' || format === 'text') return value;
  return Number((format === 'percent' ? 100 * value : value).toFixed(places[format]));
}
