import type { Report } from '@yellow-thread/contract';
import { columnName } from '@yellow-thread/core/report';
import { useState } from 'react';
import { useReport, type Cell } from '../data/report.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { asP, asPoints } from '../lib/numbers.js';
import { Term } from '../help/term.js';
import { cellTestsTexts } from './texts.js';

type Row = Report['rows'][number];

interface CellTestsProps {
  study: number;
  question: number;
  /** The table's address. */
  query: string;
  cell: Cell;
}

/** The tests that a cell stands in, with every figure; asked for when they are opened. */
export function CellTests(props: CellTestsProps) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="border-b border-rule py-2"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer">{cellTestsTexts.tests}</summary>
      {open && <Tests {...props} />}
    </details>
  );
}

function Tests({ study, question, query, cell }: CellTestsProps) {
  const asked = new URLSearchParams(query);
  asked.set('tests', 'true');
  // a row is tested by itself: the others need not be counted
  asked.set('chosen', cell.row);
  const report = useReport(study, question, asked.toString());
  if (report.isError) return <ProblemNote error={report.error} />;
  if (!report.data || report.isPlaceholderData) return <Waiting what={cellTestsTexts.theTests} />;
  const { columns, rows } = report.data;
  const place = columns.findIndex(({ key }) => key === cell.column);
  const row = rows.find(({ id }) => id === cell.row);
  const tests = (row?.tests ?? []).filter(({ one, other }) => one === place || other === place);
  const residual = row && residualOf(row, columns, place);
  if (!row || (tests.length === 0 && !row.whole))
    return <p className="text-soft">{cellTestsTexts.none}</p>;
  return (
    <div className="figures mt-1 flex flex-col gap-1 text-[13px]">
      {row.whole && (
        <p>
          {cellTestsTexts.whole(row.whole)}{' '}
          {residual !== null && residual !== undefined && cellTestsTexts.residual(residual)}
        </p>
      )}
      {tests.length > 0 && (
        <table className="w-full">
          <thead className="text-left text-soft">
            <tr>
              <th className="font-normal">{cellTestsTexts.against}</th>
              <th className="text-right font-normal">{cellTestsTexts.points}</th>
              <th className="text-right font-normal">{cellTestsTexts.test}</th>
              <th className="text-right font-normal">{cellTestsTexts.p}</th>
              <th className="text-right font-normal">
                <Term of="significance">{cellTestsTexts.corrected}</Term>
              </th>
            </tr>
          </thead>
          <tbody>
            {tests.map((test) => {
              const isFirst = test.one === place;
              const other = isFirst ? test.other : test.one;
              const sign = isFirst ? 1 : -1;
              const ends = isFirst ? test.interval : test.interval.toReversed();
              return (
                <tr key={other ?? 'rest'}>
                  <th scope="row" className="text-left font-normal">
                    {other === null ? cellTestsTexts.everyoneElse : columnName(columns[other]!)}
                  </th>
                  <td className="text-right">
                    {cellTestsTexts.difference(
                      asPoints(sign * test.value),
                      ends.map((end) => asPoints(sign * end)),
                    )}
                  </td>
                  <td className="text-right">{cellTestsTexts.statistic(test, sign)}</td>
                  <td className="text-right">{asP(test.p)}</td>
                  <td className="text-right">{asP(test.corrected)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </div>
  );
}

/** How far a column is off what is expected; they are kept of the columns that are compared, in their order. */
function residualOf(
  { whole }: Row,
  columns: Report['columns'],
  place: number,
): number | null | undefined {
  if (!columns[place]?.isCompared) return null;
  return whole?.residuals[columns.slice(0, place).filter(({ isCompared }) => isCompared).length];
}
