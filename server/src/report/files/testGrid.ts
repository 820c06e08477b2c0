import type { Report } from '@yellow-thread/contract';
import { columnName } from '@yellow-thread/core/report';
import type { Fact } from './facts.js';
import { testNames, type Grid, type GridColumn, type GridValue } from './grid.js';
import { testGridTexts } from '../../wording/report.js';

type Row = Report['rows'][number];

/** Every test of a table with its figures, one row a comparison; null where nothing is tested. */
export function testGrid(report: Report, facts: readonly Fact[]): Grid | null {
  const rows = report.rows.flatMap((row) => testsOf(row, report));
  if (rows.length === 0) return null;
  const columns: GridColumn[] = [
    { head: testGridTexts.row, format: 'text' },
    { head: testGridTexts.column, format: 'text' },
    { head: testGridTexts.against, format: 'text' },
    { head: testGridTexts.test, format: 'text' },
    { head: testGridTexts.statistic, format: 'decimal' },
    { head: testGridTexts.df, format: 'decimal' },
    { head: testGridTexts.df2, format: 'decimal' },
    { head: testGridTexts.p, format: 'p' },
    { head: testGridTexts.corrected, format: 'p' },
    { head: testGridTexts.effect, format: 'text' },
    { head: testGridTexts.value, format: 'decimal' },
    { head: testGridTexts.low, format: 'decimal' },
    { head: testGridTexts.high, format: 'decimal' },
  ];
  return {
    name: testGridTexts.name,
    facts: [...facts],
    columns,
    rows,
    heads: rows.map(() => false),
  };
}

function testsOf(row: Row, report: Report): GridValue[][] {
  const nameOf = (place: number) => columnName(report.columns[place]!);
  // the columns that stand in one test of the whole row, in their order
  const compared = report.columns.filter(({ isCompared }) => isCompared).map(columnName);
  const { whole } = row;
  return [
    ...(whole
      ? [
          [
            row.name,
            testGridTexts.allColumns,
            '',
            testGridTexts.wholes[whole.test],
            whole.value,
            whole.degrees[0] ?? null,
            whole.degrees[1] ?? null,
            whole.p,
            null,
            testGridTexts.cramersV,
            whole.strength,
            null,
            null,
          ],
          ...whole.residuals.map((residual, k) => [
            row.name,
            compared[k] ?? '',
            testGridTexts.allColumns,
            testGridTexts.adjustedResidual,
            residual,
            null,
            null,
            null,
            null,
            '',
            null,
            null,
            null,
          ]),
        ]
      : []),
    ...row.tests.map((test) => [
      row.name,
      nameOf(test.one),
      test.other === null ? testGridTexts.everyoneElse : nameOf(test.other),
      testNames[test.test],
      test.statistic,
      test.degrees[0] ?? null,
      test.degrees[1] ?? null,
      test.p,
      test.corrected,
      testGridTexts.differenceOfShares,
      test.value,
      ...test.interval,
    ]),
  ];
}
