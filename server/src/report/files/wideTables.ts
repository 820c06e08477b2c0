import type { Block } from './blocks.js';

export type TableBlock = Extract<Block, { kind: 'table' }>;

/** Between the margins of an A4 page, in centimetres. */
export const PAGE = { portrait: 16.6, landscape: 25.3 } as const;
/** A letter of the small type that tables are set in, and the space beside a cell, in centimetres. */
const LETTER = 0.155;
const PADDING = 0.4;
const [NARROWEST_NAME, WIDEST_NAME, WIDEST_COLUMN] = [2.5, 5.5, 4];

const longestWord = (text: string): number =>
  Math.max(...text.split(/\s+/u).map(({ length }) => length));

/** How wide each column must be for its figures to stand in one line, and its head to break between words. */
export function widthsOf({ heads, rows }: Pick<TableBlock, 'heads' | 'rows'>): number[] {
  const count = Math.max(
    ...heads.map(({ length }) => length),
    ...rows.map(({ cells }) => cells.length),
  );
  return Array.from({ length: count }, (_, c) => {
    const inRows = Math.max(0, ...rows.map(({ cells }) => cells[c]?.length ?? 0));
    const inHeads = Math.max(0, ...heads.map((line) => longestWord(line[c] ?? '')));
    if (c === 0) return Math.min(WIDEST_NAME, Math.max(NARROWEST_NAME, inRows * LETTER + PADDING));
    return Math.min(WIDEST_COLUMN, Math.max(inRows, inHeads) * LETTER + PADDING);
  });
}

const sum = (widths: readonly number[]) => widths.reduce((all, width) => all + width, 0);

/** Whether a document with these blocks is read better on pages that lie across. */
export const isWide = (blocks: readonly Block[]): boolean =>
  blocks.some((block) => block.kind === 'table' && sum(widthsOf(block)) > PAGE.portrait);

/**
 * A table as parts that each fit a page, with the names of the rows and the heads repeated; no column is lost.
 *
 * @param room for a part, in centimetres
 * @returns the parts, with the widths of their columns
 */
export function partsOf(table: TableBlock, room: number): (TableBlock & { widths: number[] })[] {
  const widths = widthsOf(table);
  const parts: number[][] = [[]];
  let taken = widths[0]!;
  for (let c = 1; c < widths.length; c++) {
    if (taken + widths[c]! > room && parts.at(-1)!.length > 0) {
      parts.push([]);
      taken = widths[0]!;
    }
    parts.at(-1)!.push(c);
    taken += widths[c]!;
  }
  return parts.map((columns, p) => {
    const places = [0, ...columns];
    const pick = (line: readonly string[]) => places.map((c) => line[c] ?? '');
    return {
      ...table,
      heads: table.heads.map(pick),
      rows: table.rows.map(({ cells, isHead }) => ({ cells: pick(cells), isHead })),
      // said once, below the last
      note: p === parts.length - 1 ? table.note : '',
      widths: places.map((c) => widths[c]!),
    };
  });
}
