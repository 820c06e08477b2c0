import type { Report } from '@yellow-thread/contract';
import { columnName } from '@yellow-thread/core/report';
import { ChevronDown, ChevronRight } from 'lucide-react';
import type { DrawnCodebook } from '../data/codebook.js';
import { asCount, asMean, asPercent, asPoints } from '../parts/numbers.js';
import { StitchBar, StitchMark } from '../parts/stitch.js';
import type { Look } from '../parts/stitches.js';
import type { ChangeTable, TableChoice } from './tableChoice.js';

type Row = Report['rows'][number];
type Column = Report['columns'][number];
type Cell = Row['cells'][number];

/** How long a cell's bar is by itself, before it is set against others. */
function lengthOf({ share, people, mentions, base }: Cell, kind: TableChoice['cells']): number {
  switch (kind) {
    case 'percent':
      return share ?? 0;
    case 'people':
      return people;
    case 'mentions':
      return mentions;
    case 'mean':
      return base.people > 0 ? mentions / base.people : 0;
    case 'yes':
      return people > 0 ? 1 : 0;
  }
}

function textOf(cell: Cell, kind: TableChoice['cells']): string {
  switch (kind) {
    case 'percent':
      return cell.share === null ? '–' : asPercent(cell.share, cell.base.people);
    case 'people':
      return asCount(cell.people);
    case 'mentions':
      return asCount(cell.mentions);
    case 'mean':
      return cell.base.people > 0 ? asMean(cell.mentions / cell.base.people) : '–';
    case 'yes':
      return cell.people > 0 ? 'yes' : '–';
  }
}

/** How a row is drawn: as its theme is; a bundle has no theme of its own. */
export function lookOf(row: Pick<Row, 'kind' | 'id'>, codebook: DrawnCodebook): Look {
  const known =
    row.kind === 'theme'
      ? codebook.themes.find((theme) => theme.id === row.id)?.look
      : codebook.byId.get(row.id)?.look;
  return known ?? { ink: '#655f53', stitch: 'running' };
}

/** Codes × groups: each cell a stitched bar with its percentage and what it is out of. */
export function Cloth({
  report,
  codebook,
  choice,
  change,
  onCell,
}: {
  report: Report;
  codebook: DrawnCodebook;
  choice: TableChoice;
  change: ChangeTable;
  onCell: (row: Row, column: Column) => void;
}) {
  const { columns, weighted } = report;
  const heads = new Set(report.rows.filter(({ kind }) => kind !== 'code').map(({ id }) => id));
  const isUnder = (row: Row) =>
    row.kind === 'code' && row.parentId !== null && heads.has(row.parentId);
  const rows = report.rows.filter(
    (row) => !(isUnder(row) && choice.folded.includes(row.parentId!)),
  );
  const sized = rows.map((row) =>
    row.cells.map((cell) =>
      cell.base.people >= choice.lowest || choice.cells !== 'percent'
        ? lengthOf(cell, choice.cells)
        : 0,
    ),
  );
  const longestOf = (lengths: number[]) =>
    Math.max(...lengths, choice.cells === 'percent' ? 0.01 : 0) || 1;
  const longest = {
    table: longestOf(sized.flat()),
    columns: columns.map((_, c) => longestOf(sized.map((lengths) => lengths[c]!))),
    rows: sized.map(longestOf),
  };
  const scale = (r: number, c: number) =>
    ({ table: longest.table, column: longest.columns[c]!, row: longest.rows[r]! })[choice.bars];
  const fold = (id: string) =>
    change({
      folded: (choice.folded.includes(id)
        ? choice.folded.filter((one) => one !== id)
        : [...choice.folded, id]
      ).join(','),
    });
  const shows = {
    difference: report.rows.some(({ difference }) => difference),
    estimated: estimatedColumns(report),
    whole: report.rows.some(({ whole }) => whole),
  };
  return (
    <table className="w-full border-separate border-spacing-0">
      <ClothHead report={report} shows={shows} choice={choice} />
      <tbody>
        {rows.map((row, r) => {
          const look = lookOf(row, codebook);
          const isHead = row.kind !== 'code';
          const top = isHead ? 'border-t pt-3' : '';
          return (
            <tr key={row.kind + row.id + row.parentId}>
              <th
                scope="row"
                className={`sticky left-0 z-[5] border-rule bg-paper py-1 pr-3 text-left ${isHead ? `${top} font-semibold` : 'font-normal'}`}
              >
                <span className={`flex items-center gap-2 ${isUnder(row) ? 'pl-4' : ''}`}>
                  <StitchMark look={look} width={isHead ? 24 : 14} />
                  <span style={{ color: isHead ? look.ink : undefined }}>{row.name}</span>
                  {isHead && (
                    <button
                      type="button"
                      aria-expanded={!choice.folded.includes(row.id)}
                      aria-label={`Codes of ${row.name}`}
                      className="rounded p-0.5 text-soft hover:bg-wash"
                      onClick={() => fold(row.id)}
                    >
                      {choice.folded.includes(row.id) ? (
                        <ChevronRight size={14} aria-hidden />
                      ) : (
                        <ChevronDown size={14} aria-hidden />
                      )}
                    </button>
                  )}
                </span>
              </th>
              {row.cells.map((cell, c) => (
                <td key={columns[c]!.key} className={`border-rule py-1 pl-5 ${top}`}>
                  <ClothCell
                    row={row}
                    column={columns[c]!}
                    cell={cell}
                    look={look}
                    choice={choice}
                    length={Math.min(1, lengthOf(cell, choice.cells) / scale(r, c))}
                    isWeighted={weighted}
                    onCell={onCell}
                  />
                </td>
              ))}
              {shows.difference && (
                <td className={`figures border-rule py-1 pl-5 text-right align-bottom ${top}`}>
                  {row.difference && (
                    <>
                      <span className="block text-[12px] text-soft">
                        {row.difference.interval.map(asPoints).join(' to ')}
                      </span>
                      {asPoints(row.difference.value)}{' '}
                      <span className="text-[12px] text-soft">p {asP(row.difference.p)}</span>
                    </>
                  )}
                </td>
              )}
              {shows.estimated.map((c) => (
                <td
                  key={`estimated ${columns[c]!.key}`}
                  className={`figures border-rule bg-wash/50 px-3 py-1 text-right align-bottom ${top}`}
                >
                  <Estimated estimated={row.cells[c]!.estimated} />
                </td>
              ))}
              {shows.whole && (
                <td
                  className={`figures border-rule py-1 pl-5 text-right align-bottom ${top}`}
                  title={row.whole ? `Cramér’s V ${row.whole.strength.toFixed(2)}` : undefined}
                >
                  {!row.whole && <span className="text-[12px] text-soft">too few</span>}
                  {row.whole && (
                    <>
                      <span className="block text-[12px] text-soft">
                        {row.whole.test === 'chi_square' ? 'χ²' : 'F'} {row.whole.value.toFixed(1)}
                      </span>
                      p {asP(row.whole.p)}
                    </>
                  )}
                </td>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const asP = (p: number) => (p < 0.001 ? '< 0.001' : p.toFixed(3));

function ClothHead({
  report: { columns, weighted, level },
  shows,
  choice,
}: {
  report: Report;
  shows: { difference: boolean; estimated: number[]; whole: boolean };
  choice: TableChoice;
}) {
  const isNested = columns.some(({ under }) => under !== null);
  const spans = columns.reduce<{ under: string | null; count: number }[]>((all, { under }) => {
    const last = all.at(-1);
    if (last && last.under === under) last.count += 1;
    else all.push({ under, count: 1 });
    return all;
  }, []);
  const head = 'sticky z-10 border-b border-rule bg-paper py-2 pl-5 text-right align-bottom';
  const top = isNested ? 'top-7' : 'top-0';
  const percent = Math.round(100 * level);
  const pair = choice.difference?.split('-').map((place) => columns[Number(place)]?.label);
  return (
    <thead>
      {isNested && (
        <tr>
          <th className="sticky left-0 top-0 z-20 h-7 bg-paper" />
          {spans.map(({ under, count }, s) => (
            <th
              key={s}
              scope="colgroup"
              colSpan={count}
              className="sticky top-0 z-10 h-7 bg-paper pl-5 text-left font-semibold text-soft"
            >
              {under !== null && (
                <span className="block truncate border-b border-rule">{under}</span>
              )}
            </th>
          ))}
        </tr>
      )}
      <tr>
        <th
          scope="col"
          className={`sticky left-0 ${top} z-20 min-w-[220px] border-b border-rule bg-paper py-2 text-left font-normal text-soft`}
        >
          {
            { book: 'Theme and code', themes: 'Theme', codes: 'Code', bundles: 'Bundle and code' }[
              choice.rows
            ]
          }
        </th>
        {columns.map((column) => (
          <th key={column.key} scope="col" className={`${head} ${top} min-w-[108px] font-semibold`}>
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
                weighted {asCount(Math.round(column.settledWeighted))}, effective{' '}
                {asCount(Math.round(column.settledEffective))}
              </span>
            )}
          </th>
        ))}
        {shows.difference && pair && (
          <th scope="col" className={`${head} ${top} min-w-[130px] font-semibold`}>
            Difference
            <span className="block text-[12px] font-normal text-soft">
              {pair.join(' less ')}, {percent}%
            </span>
          </th>
        )}
        {shows.estimated.map((c) => (
          <th
            key={`estimated ${columns[c]!.key}`}
            scope="col"
            className={`${head} ${top} min-w-[130px] pr-3 font-semibold`}
          >
            {columnName(columns[c]!)}
            <span className="block text-[12px] font-normal text-soft">
              estimated, of all who answered
            </span>
          </th>
        ))}
        {shows.whole && (
          <th scope="col" className={`${head} ${top} min-w-[90px] font-semibold`}>
            Any difference
            <span className="block text-[12px] font-normal text-soft">across the columns</span>
          </th>
        )}
      </tr>
    </thead>
  );
}

/** Places of the columns that shares are estimated of. */
const estimatedColumns = ({ columns, rows }: Report): number[] =>
  columns.flatMap((_, c) => (rows.some(({ cells }) => cells[c]!.estimated) ? [c] : []));

/** An estimated share under its interval; it is no count, so that it has no bar and opens nothing. */
function Estimated({ estimated }: { estimated: Cell['estimated'] }) {
  if (!estimated) return null;
  const { estimate, sampleInterval, sampleShare, sampled } = estimated;
  const [low, high] = estimate?.interval ?? sampleInterval;
  return (
    <>
      <span className="block text-[12px] text-soft">
        {asPercent(low, sampled)} to {asPercent(high, sampled)}
      </span>
      {asPercent(estimate?.value ?? sampleShare, sampled)}
      {!estimate && <span className="text-[12px] text-soft"> sample only</span>}
    </>
  );
}

function ClothCell({
  row,
  column,
  cell,
  look,
  choice,
  length,
  isWeighted,
  onCell,
}: {
  row: Row;
  column: Column;
  cell: Cell;
  look: Look;
  choice: TableChoice;
  length: number;
  isWeighted: boolean;
  onCell: (row: Row, column: Column) => void;
}) {
  if (cell.share === null) return <span className="text-soft">–</span>;
  const { people } = cell.base;
  const faint = people < choice.lowest ? 'text-soft italic' : people < choice.low ? 'italic' : '';
  const text = textOf(cell, choice.cells);
  const isOfMentions = choice.base === 'mentions';
  const part = isOfMentions ? cell.mentions : cell.people;
  const rest =
    cell.rest &&
    { higher: 'higher than everyone else', lower: 'lower than everyone else' }[cell.rest];
  const marks = [
    cell.exceeds.length > 0 ? `higher than ${cell.exceeds.join(', ')}` : '',
    rest ?? '',
  ].filter(Boolean);
  return (
    <button
      type="button"
      disabled={cell.people === 0}
      onClick={() => onCell(row, column)}
      title={
        isWeighted
          ? `weighted ${cell.weighted.toFixed(1)} of ${cell.base.weighted.toFixed(1)}`
          : undefined
      }
      aria-label={[`${row.name}, ${column.label}: ${text}`, `${part} of ${people}`, ...marks].join(
        ', ',
      )}
      className="block w-full rounded text-right enabled:hover:bg-wash"
    >
      <StitchBar look={look} share={length} />
      <span className={`figures flex items-baseline justify-between gap-2 ${faint}`}>
        <span className="whitespace-nowrap text-[12px] text-soft">
          {choice.interval && cell.interval
            ? cell.interval.map((end) => asPercent(end, people)).join(' – ')
            : `${asCount(part)} of ${asCount(people)}`}
        </span>
        <span className={`relative ${row.kind === 'code' ? '' : 'font-semibold'}`}>
          {text}
          {(cell.exceeds.length > 0 || cell.rest) && (
            <sup className="absolute left-full top-1 ml-0.5 whitespace-nowrap text-[11px] font-semibold text-deep">
              {cell.exceeds.join('')}
              {cell.rest && (cell.rest === 'higher' ? '+' : '−')}
            </sup>
          )}
        </span>
      </span>
    </button>
  );
}
