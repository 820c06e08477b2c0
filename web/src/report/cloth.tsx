import type { Report } from '@yellow-thread/contract';
import type { DrawnCodebook } from '../data/codebook.js';
import { asCount, asPercent } from '../parts/numbers.js';
import { StitchBar, StitchMark } from '../parts/stitch.js';
import type { Look } from '../parts/stitches.js';

type Row = Report['rows'][number];
type Column = Report['columns'][number];

const LOW_BASE = 30;
const LOWEST_BASE = 10;

/** Codes × groups: each cell a stitched bar with its percentage and what it is out of. */
export function Cloth({
  report,
  codebook,
  onCell,
}: {
  report: Report;
  codebook: DrawnCodebook;
  onCell: (row: Row, column: Column) => void;
}) {
  const { columns, rows, weighted } = report;
  const longest = Math.max(
    ...rows.flatMap((row) =>
      row.cells.map((cell) => (cell.base.people >= LOWEST_BASE ? (cell.share ?? 0) : 0)),
    ),
    0.01,
  );
  const lookOf = (row: Row): Look =>
    (row.kind === 'theme'
      ? codebook.themes.find((theme) => theme.id === row.id)?.look
      : codebook.byId.get(row.id)?.look) ?? { ink: '#655f53', stitch: 'running' };
  return (
    <table className="w-full border-separate border-spacing-0">
      <thead>
        <tr>
          <th
            scope="col"
            className="sticky left-0 top-0 z-20 min-w-[220px] border-b border-rule bg-paper py-2 text-left font-normal text-soft"
          >
            Theme and code
          </th>
          {columns.map((column) => (
            <th
              key={column.key}
              scope="col"
              className="sticky top-0 z-10 min-w-[108px] border-b border-rule bg-paper py-2 pl-5 text-right align-bottom font-semibold"
            >
              {column.label}
              {column.letter && (
                <span className="ml-1.5 font-normal text-soft" title="its letter in tests">
                  {column.letter}
                </span>
              )}
              <span className="figures block text-[12px] font-normal text-soft">
                {asCount(column.settled)} settled of {asCount(column.answered)}
              </span>
              {weighted && (
                <span className="figures block text-[12px] font-normal text-soft">
                  effective {asCount(Math.round(column.settledEffective))}
                </span>
              )}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => {
          const look = lookOf(row);
          const isTheme = row.kind === 'theme';
          return (
            <tr key={row.kind + row.id}>
              <th
                scope="row"
                className={`sticky left-0 z-[5] border-rule bg-paper py-1 pr-3 text-left ${isTheme ? 'border-t pt-3 font-semibold' : 'font-normal'}`}
              >
                <span className={`flex items-center gap-2 ${isTheme ? '' : 'pl-4'}`}>
                  <StitchMark look={look} width={isTheme ? 24 : 14} />
                  <span style={{ color: isTheme ? look.ink : undefined }}>{row.name}</span>
                </span>
              </th>
              {row.cells.map((cell, c) => {
                const column = columns[c]!;
                const { people } = cell.base;
                const faint =
                  people < LOWEST_BASE ? 'text-soft italic' : people < LOW_BASE ? 'italic' : '';
                return (
                  <td
                    key={column.key}
                    className={`border-rule py-1 pl-5 ${isTheme ? 'border-t pt-3' : ''}`}
                  >
                    {cell.share === null ? (
                      <span className="text-soft">–</span>
                    ) : (
                      <button
                        type="button"
                        disabled={cell.people === 0}
                        onClick={() => onCell(row, column)}
                        aria-label={`${row.name}, ${column.label}: ${asPercent(cell.share, people)}, ${cell.people} of ${people}${cell.exceeds.length > 0 ? `, higher than ${cell.exceeds.join(', ')}` : ''}`}
                        className="block w-full rounded text-right enabled:hover:bg-wash"
                      >
                        <StitchBar look={look} share={Math.min(1, cell.share / longest)} />
                        <span
                          className={`figures flex items-baseline justify-between gap-2 ${faint}`}
                        >
                          <span className="text-[12px] text-soft">
                            {asCount(cell.people)} of {asCount(people)}
                          </span>
                          <span className={`relative ${isTheme ? 'font-semibold' : ''}`}>
                            {asPercent(cell.share, people)}
                            {cell.exceeds.length > 0 && (
                              <sup className="absolute left-full top-1 ml-0.5 text-[11px] font-semibold text-deep">
                                {cell.exceeds.join('')}
                              </sup>
                            )}
                          </span>
                        </span>
                      </button>
                    )}
                  </td>
                );
              })}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
