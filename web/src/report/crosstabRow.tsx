import type { Report } from '@yellow-thread/contract';
import { estimateOf } from '@yellow-thread/core/report';
import { ChevronDown, ChevronRight } from 'lucide-react';
import type { ComponentProps } from 'react';
import { asP, asPercent, asPoints } from '../lib/numbers.js';
import { StitchBar, StitchMark } from '../parts/stitch.js';
import type { Look } from '../lib/stitches.js';
import { countsText, figureOf, figureText } from './cellFigures.js';
import type { Beside } from './crosstabHead.js';
import type { TableChoice } from './tableChoice.js';
import { crosstabRowTexts } from './texts.js';

export type Row = Report['rows'][number];
export type Column = Report['columns'][number];
type Cell = Row['cells'][number];

/** A code, theme or bundle with its figures in every column, and what stands beside them. */
export function CrosstabRow({
  row,
  isUnder,
  folded,
  look,
  columns,
  beside,
  choice,
  scale,
  isWeighted,
  counts,
  base,
  onFold,
  onCell,
  ...drawn
}: {
  row: Row;
  /** Whether it stands under a theme or bundle. */
  isUnder: boolean;
  /** Whether its codes are hidden. */
  folded: boolean;
  look: Look;
  columns: Column[];
  beside: Beside;
  choice: TableChoice;
  /** What the longest bar that a cell's is set against stands for. */
  scale: (column: number) => number;
  isWeighted: boolean;
  /** What the table counts, and what its percentages are out of. */
  counts: Report['counts'];
  base: Report['base'];
  onFold: () => void;
  onCell: (row: Row, column: Column) => void;
} & Pick<ComponentProps<'tr'>, 'ref' | 'aria-rowindex'> & { 'data-index'?: number }) {
  const isHead = row.kind !== 'code';
  const undecided = row.cells[0]?.undecided ?? 0;
  const top = isHead ? 'border-t pt-3' : '';
  const figures = `figures border-rule py-1 text-right align-bottom ${top}`;
  return (
    <tr {...drawn}>
      <th
        scope="row"
        className={`sticky left-0 z-[5] border-rule bg-paper py-1 pr-3 text-left ${isHead ? `${top} font-semibold` : 'font-normal'}`}
      >
        <span className={`flex items-center gap-2 ${isUnder ? 'pl-4' : ''}`}>
          <StitchMark look={look} width={isHead ? 24 : 14} />
          <span>
            <span style={{ color: isHead ? look.ink : undefined }}>{row.name}</span>
            {undecided > 0 && (
              <span className="figures block text-[12px] font-normal text-soft">
                {crosstabRowTexts.undecided(undecided)}
              </span>
            )}
          </span>
          {isHead && (
            <button
              type="button"
              aria-expanded={!folded}
              aria-label={crosstabRowTexts.codes(row.name)}
              className="rounded p-0.5 text-soft hover:bg-wash"
              onClick={onFold}
            >
              {folded ? (
                <ChevronRight size={14} aria-hidden />
              ) : (
                <ChevronDown size={14} aria-hidden />
              )}
            </button>
          )}
        </span>
      </th>
      {row.cells.map((cell, c) => (
        <td
          key={columns[c]!.key}
          className={`border-rule py-1 pl-[calc(1.25rem+var(--letters))] ${top}`}
        >
          <CrosstabCell
            row={row}
            column={columns[c]!}
            cell={cell}
            look={look}
            choice={choice}
            length={Math.min(1, (figureOf(cell, columns[c]!, choice.cells, base) ?? 0) / scale(c))}
            isWeighted={isWeighted}
            counts={counts}
            base={base}
            onCell={onCell}
          />
        </td>
      ))}
      {beside.difference && (
        <td className={`pl-5 ${figures}`}>
          <Difference difference={row.difference} decimals={choice.decimals} />
        </td>
      )}
      {beside.estimated.map((c) => (
        <td
          key={`estimated ${columns[c]!.key}`}
          className={`border-l-8 border-l-transparent bg-wash/50 bg-clip-padding px-3 ${figures}`}
        >
          <Estimated estimated={row.cells[c]!.estimated} decimals={choice.decimals} />
        </td>
      ))}
      {beside.whole && (
        <td
          className={`pl-5 ${figures}`}
          title={row.whole ? crosstabRowTexts.crameRsV(row.whole.strength.toFixed(2)) : undefined}
        >
          <Whole whole={row.whole} />
        </td>
      )}
    </tr>
  );
}

type Decimals = TableChoice['decimals'];

function Difference({ difference, decimals }: Pick<Row, 'difference'> & { decimals: Decimals }) {
  if (!difference) return null;
  return (
    <>
      <span className="block text-[12px] text-soft">
        {difference.interval.map((end) => asPoints(end, decimals)).join(' to ')}
      </span>
      {asPoints(difference.value, decimals)}{' '}
      <span className="text-[12px] text-soft">{crosstabRowTexts.p(asP(difference.p))}</span>
    </>
  );
}

function Whole({ whole }: Pick<Row, 'whole'>) {
  if (!whole) return <span className="text-[12px] text-soft">{crosstabRowTexts.tooFew}</span>;
  return (
    <>
      <span className="block text-[12px] text-soft">
        {whole.test === 'chi_square' ? 'χ²' : crosstabRowTexts.f} {whole.value.toFixed(1)}
      </span>
      {crosstabRowTexts.p(asP(whole.p))}
    </>
  );
}

/** An estimated share under its interval; it is no count, so that it has no bar and opens nothing. */
function Estimated({ estimated, decimals }: { estimated: Cell['estimated']; decimals: Decimals }) {
  if (!estimated) return null;
  const { estimate, sampled } = estimated;
  const {
    value,
    interval: [low, high],
  } = estimateOf(estimated);
  return (
    <>
      <span className="block text-[12px] text-soft">
        {crosstabRowTexts.to(low, sampled, decimals, high)}
      </span>
      {asPercent(value, sampled, decimals)}
      {!estimate && <span className="text-[12px] text-soft"> {crosstabRowTexts.sampleOnly}</span>}
    </>
  );
}

function CrosstabCell({
  row,
  column,
  cell,
  look,
  choice,
  length,
  isWeighted,
  counts,
  base,
  onCell,
}: {
  row: Row;
  column: Column;
  cell: Cell;
  counts: Report['counts'];
  base: Report['base'];
  look: Look;
  choice: TableChoice;
  length: number;
  isWeighted: boolean;
  onCell: (row: Row, column: Column) => void;
}) {
  if (cell.share === null) return <span className="block text-right text-soft">–</span>;
  const { sampled } = cell.estimated ?? {};
  const isEstimated = counts === 'estimated';
  const people = (isEstimated ? sampled : undefined) ?? cell.base.people;
  const faint = people < choice.lowest ? 'text-soft italic' : people < choice.low ? 'italic' : '';
  const cells = isEstimated ? 'percent' : choice.cells;
  const text = figureText(
    figureOf(cell, column, cells, base),
    { ...choice, cells },
    { people: cell.base.people, isWeighted },
  );
  const counted = countsText(cell, column, base, isWeighted);
  const ends = cell.interval?.map((end) => asPercent(end, people, choice.decimals)).join(' – ');
  const about = isEstimated ? ends : choice.interval && ends ? ends : counted;
  const atLeast = cell.undecided > 0 ? crosstabRowTexts.leastUndecided(cell.undecided) : '';
  const rest =
    cell.rest &&
    { higher: crosstabRowTexts.higherEveryoneElse, lower: crosstabRowTexts.lowerEveryoneElse }[
      cell.rest
    ];
  const marks = [
    atLeast,
    cell.exceeds.length > 0 ? crosstabRowTexts.higher(cell.exceeds.join(', ')) : '',
    rest ?? '',
  ].filter(Boolean);
  return (
    <button
      type="button"
      disabled={cell.people === 0}
      onClick={() => onCell(row, column)}
      title={
        isWeighted && !isEstimated
          ? crosstabRowTexts.ofWeighted(cell.weighted, cell.base.weighted)
          : undefined
      }
      aria-label={[
        `${row.name}, ${column.label}: ${text}`,
        isEstimated ? crosstabRowTexts.estimated(about) : counted,
        ...marks,
      ].join(', ')}
      className="block w-full rounded text-right enabled:hover:bg-wash"
    >
      <StitchBar look={look} share={length} />
      <span className={`figures flex flex-wrap items-baseline justify-between gap-x-2 ${faint}`}>
        <span className="whitespace-nowrap text-[12px] text-soft">{about}</span>
        <span
          className={`relative ml-auto whitespace-nowrap ${row.kind === 'code' ? '' : 'font-semibold'}`}
        >
          {atLeast && (
            <span className="mr-1 text-[12px] font-normal text-soft" title={atLeast}>
              {crosstabRowTexts.least}
            </span>
          )}
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
