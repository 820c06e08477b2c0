import type { Report } from '@yellow-thread/contract';
import { writeCsv, type CsvValue } from '@yellow-thread/core/exchange';

/** What stands above the table, so that the file explains itself. */
export interface ReportTitle {
  study: string;
  question: string;
  columns: string;
  date: string;
}

const baseWords = {
  settled: 'people with a settled answer',
  answered: 'people who answered',
  asked: 'people who were asked',
};

/** The report as CSV: a heading, then one row a theme or code with people, base and percent by column. */
export function reportAsCsv(report: Report, title: ReportTitle): string {
  const head: CsvValue[][] = [
    ['Study', title.study],
    ['Question', title.question],
    ['Columns', title.columns],
    ['Percent of', baseWords[report.base]],
    ['Weighted', report.weighted ? 'yes' : 'no'],
    ['Date', title.date],
    [],
  ];
  const names = report.columns.flatMap(({ label }) => [
    `${label}: people`,
    `${label}: base`,
    ...(report.weighted ? [`${label}: weighted base`] : []),
    `${label}: percent`,
    `${label}: mentions`,
  ]);
  const themeNames = new Map(
    report.rows.filter((row) => row.kind === 'theme').map((row) => [row.id, row.name]),
  );
  const body = report.rows.map((row): CsvValue[] => [
    row.kind,
    (row.themeId && themeNames.get(row.themeId)) ?? '',
    row.name,
    ...row.cells.flatMap((cell) => [
      cell.people,
      cell.base.people,
      ...(report.weighted ? [round(cell.base.weighted, 3)] : []),
      cell.share === null ? null : round(100 * cell.share, 2),
      cell.mentions,
    ]),
  ]);
  return writeCsv([...head, ['Kind', 'Theme', 'Name', ...names], ...body]);
}

const round = (value: number, places: number) => Number(value.toFixed(places));
