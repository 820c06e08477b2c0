import type { Picture, Report } from '@yellow-thread/contract';
import { columnName } from '@yellow-thread/core/report';
import type { ChartKind } from './chartConfig.js';
import { chartFiguresTexts } from './chartTexts.js';

/** The figures that a chart draws, to stand in files where a picture cannot. */
export function chartFigures(
  kind: ChartKind,
  { columns }: Pick<Report, 'columns'>,
  rows: Report['rows'],
  pair: readonly [number, number],
): NonNullable<Picture['figures']> {
  if (kind === 'differences')
    return {
      columns: [
        chartFiguresTexts.row,
        chartFiguresTexts.difference,
        chartFiguresTexts.low,
        chartFiguresTexts.high,
      ],
      rows: rows.flatMap(({ name, difference }) =>
        difference ? [[name, difference.value, ...difference.interval]] : [],
      ),
    };
  const places = kind === 'slope' ? [...pair] : columns.map((_, c) => c);
  const hasIntervals = kind === 'bars';
  return {
    columns: [
      chartFiguresTexts.row,
      ...places.flatMap((c) => {
        const name = columnName(columns[c]!);
        return hasIntervals
          ? [name, chartFiguresTexts.from(name), chartFiguresTexts.to(name)]
          : [name];
      }),
    ],
    rows: rows.map((row) => [
      row.name,
      ...places.flatMap((c) => {
        const { share, interval } = row.cells[c]!;
        return hasIntervals ? [share, interval?.[0] ?? null, interval?.[1] ?? null] : [share];
      }),
    ]),
  };
}
