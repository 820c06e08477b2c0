import type { Report } from '@yellow-thread/contract';
import { writeCsv } from '@yellow-thread/core/exchange';
import { estimateOf } from '@yellow-thread/core/report';
import { strToU8, zipSync } from 'fflate';
import type { Fact } from './facts.js';
import type { Grid, GridValue } from './grid.js';

type Row = Report['rows'][number];
type Column = Report['columns'][number];

/** The columns of the tidy file, and what each holds of a cell. Shares are between 0 and 1. */
const fields: [name: string, of: (row: Row, column: Column, place: number) => GridValue][] = [
  ['kind', (row) => row.kind],
  ['id', (row) => row.id],
  ['under', (row) => row.parentId],
  ['name', (row) => row.name],
  ['column_group', (_, column) => column.under],
  ['column', (_, column) => column.label],
  ['letter', (_, column) => column.letter],
  ['people', (row, _, c) => row.cells[c]!.people],
  ['base', (row, _, c) => row.cells[c]!.base.people],
  ['weighted_people', (row, _, c) => row.cells[c]!.weighted],
  ['weighted_base', (row, _, c) => row.cells[c]!.base.weighted],
  ['effective_base', (row, _, c) => row.cells[c]!.base.effective],
  ['share', (row, _, c) => row.cells[c]!.share],
  ['share_low', (row, _, c) => row.cells[c]!.interval?.[0] ?? null],
  ['share_high', (row, _, c) => row.cells[c]!.interval?.[1] ?? null],
  ['mentions', (row, _, c) => row.cells[c]!.mentions],
  ['weighted_mentions', (row, _, c) => row.cells[c]!.weightedMentions],
  ['undecided', (row, _, c) => row.cells[c]!.undecided],
  ['higher_than', (row, _, c) => row.cells[c]!.exceeds.join(' ')],
  ['against_everyone_else', (row, _, c) => row.cells[c]!.rest],
  ['estimated_share', (row, _, c) => estimated(row, c)?.value ?? null],
  ['estimated_low', (row, _, c) => estimated(row, c)?.interval[0] ?? null],
  ['estimated_high', (row, _, c) => estimated(row, c)?.interval[1] ?? null],
  ['sampled', (row, _, c) => row.cells[c]!.estimated?.sampled ?? null],
  ['sampled_mentioning', (row, _, c) => row.cells[c]!.estimated?.mentioned ?? null],
];

function estimated(row: Row, c: number) {
  const cell = row.cells[c]!.estimated;
  return cell && estimateOf(cell);
}

/** A head that every program takes as a name: "Degrees of freedom" as degrees_of_freedom. */
const asName = (head: string): string =>
  head
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/gu, '_')
    .replaceAll(/^_|_$/gu, '');

/**
 * A table for programs: one row a cell, and one row a test, with nothing before the heads; what the table is about
 * stands beside them as JSON.
 *
 * @returns a ZIP archive
 * @see Wickham (2014) Tidy data, Journal of Statistical Software 59(10)
 */
export function writeTidy(
  report: Report,
  facts: readonly Fact[],
  tests: Pick<Grid, 'columns' | 'rows'> | null,
): Buffer {
  const cells = report.rows.flatMap((row) =>
    report.columns.map((column, c) => fields.map(([, of]) => of(row, column, c))),
  );
  const files = {
    'about.json': JSON.stringify(Object.fromEntries(facts), null, 2),
    'table.csv': writeCsv([fields.map(([name]) => name), ...cells], 'programs'),
    ...(tests && {
      'tests.csv': writeCsv(
        [tests.columns.map(({ head }) => asName(head)), ...tests.rows],
        'programs',
      ),
    }),
  };
  return Buffer.from(
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))),
  );
}
