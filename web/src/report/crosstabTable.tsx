import type { Report } from '@yellow-thread/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { ComponentProps } from 'react';
import type { DrawnCodebook } from '../data/codebook.js';
import type { Look } from '../lib/stitches.js';
import { besideOf, CrosstabHead, type Beside } from './crosstabHead.js';
import { figureOf, isBaseOf } from './cellFigures.js';
import { CrosstabRow, type Column, type Row } from './crosstabRow.js';
import type { ChangeTable, TableChoice } from './tableChoice.js';
import { crosstabRowTexts } from './texts.js';

/** How a row is drawn: as its theme is; a bundle has no theme of its own. */
export function lookOf(row: Pick<Row, 'kind' | 'id'>, codebook: DrawnCodebook): Look {
  const known =
    row.kind === 'theme'
      ? codebook.themes.find((theme) => theme.id === row.id)?.look
      : codebook.byId.get(row.id)?.look;
  return known ?? { ink: '#655f53', stitch: 'running' };
}

/** Codes × groups: each cell a stitched bar with its percentage and what it is out of. */
export function CrosstabTable({
  report,
  codebook,
  choice,
  change,
  onCell,
  scroller,
}: {
  report: Report;
  codebook: DrawnCodebook;
  choice: TableChoice;
  change: ChangeTable;
  onCell: (row: Row, column: Column) => void;
  /** What it scrolls in. */
  scroller: HTMLElement | null;
}) {
  const { columns, weighted, counts, base } = report;
  const heads = new Set(report.rows.filter(({ kind }) => kind !== 'code').map(({ id }) => id));
  const isUnder = (row: Row) =>
    row.kind === 'code' && row.parentId !== null && heads.has(row.parentId);
  const rows = report.rows.filter(
    (row) => !(isUnder(row) && choice.folded.includes(row.parentId!)),
  );
  const sized = rows.map((row) =>
    row.cells.map((cell, c) =>
      cell.base.people >= choice.lowest || choice.cells !== 'percent'
        ? (figureOf(cell, columns[c]!, choice.cells, base) ?? 0)
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
  const scaleOf = (r: number) => (c: number) =>
    ({ table: longest.table, column: longest.columns[c]!, row: longest.rows[r]! })[choice.bars];
  const fold = (id: string) =>
    change({
      folded: (choice.folded.includes(id)
        ? choice.folded.filter((one) => one !== id)
        : [...choice.folded, id]
      ).join(','),
    });
  const beside = besideOf(report);
  const isWindowed = rows.length > MOST_AT_ONCE;
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not in use
  const drawn = useVirtualizer({
    count: rows.length,
    enabled: isWindowed,
    getScrollElement: () => scroller,
    estimateSize: (r) => (rows[r]!.kind === 'code' ? CODE_ROW : HEAD_ROW),
    getItemKey: (r) => keyOf(rows[r]!),
    overscan: 10,
  });
  const items = drawn.getVirtualItems();
  const drawRow = (r: number, placed: Placed = {}) => {
    const row = rows[r]!;
    return (
      <CrosstabRow
        key={keyOf(row)}
        row={row}
        isUnder={isUnder(row)}
        folded={choice.folded.includes(row.id)}
        look={lookOf(row, codebook)}
        scale={scaleOf(r)}
        onFold={() => fold(row.id)}
        columns={columns}
        beside={beside}
        choice={choice}
        isWeighted={weighted}
        counts={counts}
        base={base}
        onCell={onCell}
        {...placed}
      />
    );
  };
  const headRows = columns.some(({ under }) => under !== null) ? 2 : 1;
  const widths = isWindowed ? widthsOf(report, beside, choice) : null;
  return (
    <table
      aria-rowcount={isWindowed ? headRows + rows.length : undefined}
      className={`w-full border-separate border-spacing-0 ${widths ? 'table-fixed' : ''}`}
      style={{
        ...(widths && { minWidth: widths.reduce((sum, width) => sum + width, 0) }),
        ['--letters' as string]: `${roomForLetters(report)}px`,
      }}
    >
      {widths && (
        <colgroup>
          {widths.map((width, c) => (
            <col key={c} style={{ width }} />
          ))}
        </colgroup>
      )}
      <CrosstabHead report={report} beside={beside} choice={choice} />
      <tbody>
        {isWindowed ? (
          <>
            <Space height={items[0]?.start ?? 0} />
            {items.map(({ index }) =>
              drawRow(index, {
                ref: drawn.measureElement,
                'data-index': index,
                'aria-rowindex': headRows + index + 1,
              }),
            )}
            <Space height={drawn.getTotalSize() - (items.at(-1)?.end ?? 0)} />
          </>
        ) : (
          rows.map((_, r) => drawRow(r))
        )}
      </tbody>
    </table>
  );
}

type Placed = Pick<ComponentProps<typeof CrosstabRow>, 'ref' | 'data-index' | 'aria-rowindex'>;

/** A longer table is drawn only where it is in view: thousands of cells take a quarter of a second. */
const MOST_AT_ONCE = 60;
const [CODE_ROW, HEAD_ROW] = [46, 58];

const keyOf = (row: Row): string => row.kind + row.id + row.parentId;

/** Rows that are not drawn. */
const Space = ({ height }: { height: number }) =>
  height > 0 ? (
    <tr aria-hidden>
      <td style={{ height, padding: 0 }} />
    </tr>
  ) : null;

const [DIGIT, AROUND, LETTER] = [6.6, 84, 8];
/** Letters stand in the space between two columns, which has room for two of them. */
const roomForLetters = ({ rows }: Report): number =>
  LETTER *
  Math.max(0, ...rows.flatMap(({ cells }) => cells.map(({ exceeds }) => exceeds.length - 2)));

/** How wide the columns are, whichever of the rows are drawn: that figures never push each other. */
function widthsOf(report: Report, beside: Beside, choice: TableChoice): number[] {
  const { columns, rows } = report;
  const most = Math.max(...rows.flatMap(({ cells }) => cells.map(({ base }) => base.people)));
  const note = choice.interval
    ? '99.9% – 99.9%'
    : report.weighted
      ? rows.every(({ cells }) => cells.every((cell, c) => isBaseOf(cell, columns[c]!)))
        ? crosstabRowTexts.weightedCount(most, most)
        : crosstabRowTexts.weightedOf({ weighted: most, base: most, part: most, people: most })
      : crosstabRowTexts.of(most, most);
  return [
    260,
    ...columns.map(() => Math.max(116, AROUND + DIGIT * note.length) + roomForLetters(report)),
    ...(beside.difference ? [150] : []),
    ...beside.estimated.map(() => 140),
    ...(beside.whole ? [110] : []),
  ];
}
