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

const testWords: Record<Report['test'], string> = {
  holm: 'two-sided at 5%, Holm-corrected within a row',
  benjamini_hochberg: 'two-sided at 5%, Benjamini-Hochberg-corrected within a row',
  none: 'two-sided at 5%, not corrected',
  off: 'not tested',
};

/** The report as CSV: a heading, then one row a theme or code with people, base and percent by column. */
export function reportAsCsv(report: Report, title: ReportTitle): string {
  const head: CsvValue[][] = [
    ['Study', title.study],
    ['Question', title.question],
    ['Columns', title.columns],
    ['Percent of', baseWords[report.base]],
    ['Weighted', report.weighted ? 'yes' : 'no'],
    ...(report.columns.some((column) => column.letter !== null)
      ? [['Differences', testWords[report.test]]]
      : []),
    ['Date', title.date],
    [],
  ];
  const names = report.columns.flatMap(({ label, letter }) => [
    `${label}: people`,
    `${label}: base`,
    ...(report.weighted ? [`${label}: weighted base`] : []),
    `${label}: percent`,
    `${label}: mentions`,
    ...(letter === null ? [] : [`${letter} ${label}: higher than`]),
  ]);
  const themeNames = new Map(
    report.rows.filter((row) => row.kind === 'theme').map((row) => [row.id, row.name]),
  );
  const body = report.rows.map((row): CsvValue[] => [
    row.kind,
    (row.themeId && themeNames.get(row.themeId)) ?? '',
    row.name,
    ...row.cells.flatMap((cell, c) => [
      cell.people,
      cell.base.people,
      ...(report.weighted ? [round(cell.base.weighted, 3)] : []),
      cell.share === null ? null : round(100 * cell.share, 2),
      cell.mentions,
      ...(report.columns[c]!.letter === null ? [] : [cell.exceeds.join(' ')]),
    ]),
  ]);
  return writeCsv([...head, ['Kind', 'Theme', 'Name', ...names], ...body]);
}

const round = (value: number, places: number) => Number(value.toFixed(places));
