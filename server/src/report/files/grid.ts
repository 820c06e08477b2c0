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
  /** Rows that have no parent: themes and bundles. */
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
            { head: gridTexts.weightedPeople(full), format: 'decimal' },
            { head: gridTexts.weightedBase(full), format: 'decimal' },
            { head: gridTexts.effectiveBase(full), format: 'decimal' },
          ] as const)
        : []),
      { head: gridTexts.percent(full), format: 'percent' },
      { head: gridTexts.from(full, percent), format: 'percent' },
      { head: gridTexts.to(full, percent), format: 'percent' },
      { head: gridTexts.mentions(full), format: 'count' },
      ...(weighted ? [{ head: gridTexts.weightedMentions(full), format: 'decimal' as const }] : []),
      ...higherThan,
      ...(hasRest ? [{ head: gridTexts.againstEveryoneElse(full), format: 'text' as const }] : []),
    ];
  };
  const countedIn = (cell: Cell): GridValue[] => [
    cell.people,
    cell.base.people,
    ...(isAtLeast ? [cell.undecided] : []),
    ...(weighted ? [cell.weighted, cell.base.weighted, cell.base.effective] : []),
    cell.share,
    cell.interval?.[0] ?? null,
    cell.interval?.[1] ?? null,
    cell.mentions,
    ...(weighted ? [cell.weightedMentions] : []),
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
            { head: gridTexts.differenceTest, format: 'text' },
            { head: gridTexts.differenceStatistic, format: 'decimal' },
            { head: gridTexts.differenceP, format: 'p' },
          ] as const)
        : []),
      ...(hasWhole
        ? ([
            { head: gridTexts.whole(weighted), format: 'decimal' },
            { head: gridTexts.wholeDf(weighted), format: 'decimal' },
            ...(weighted ? [{ head: gridTexts.wholeDf2, format: 'decimal' as const }] : []),
            { head: gridTexts.wholeP(weighted), format: 'p' },
            { head: gridTexts.cramersV, format: 'decimal' },
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
            row.difference ? testNames[row.difference.test] : null,
            row.difference?.statistic ?? null,
            row.difference?.p ?? null,
          ]
        : []),
      ...(hasWhole
        ? [
            row.whole?.value ?? null,
            row.whole?.degrees[0] ?? null,
            ...(weighted ? [row.whole?.degrees[1] ?? null] : []),
            row.whole?.p ?? null,
            row.whole?.strength ?? null,
          ]
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

/** What the tests of differences are called in files. */
export const testNames: Record<NonNullable<Report['rows'][number]['difference']>['test'], string> =
  gridTexts.tests;
