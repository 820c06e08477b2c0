import type { Report } from '@yellow-thread/contract';
import { asCount, asMean, asPercent, asWeighted } from '../lib/numbers.js';
import type { TableChoice } from './tableChoice.js';
import { cellKinds, crosstabRowTexts } from './texts.js';

type Column = Report['columns'][number];
type Cell = Report['rows'][number]['cells'][number];

/**
 * The figure that a cell shows: counts are sums of weights where the table is weighted.
 *
 * @returns null where it has none, as out of nobody
 */
export function figureOf(
  cell: Cell,
  column: Pick<Column, 'countedWeighted'>,
  kind: keyof typeof cellKinds,
  base: Report['base'],
): number | null {
  switch (kind) {
    case 'percent':
      return cell.share;
    case 'people':
      return cell.weighted;
    case 'mentions':
      return cell.weightedMentions;
    case 'mean': {
      // out of mentions, the base of a cell is mentions: people are counted in the column
      const people = base === 'mentions' ? column.countedWeighted : cell.base.weighted;
      return people > 0 ? cell.weightedMentions / people : null;
    }
    case 'yes':
      return cell.people > 0 ? 1 : 0;
  }
}

export function figureText(
  figure: number | null,
  { cells, decimals }: Pick<TableChoice, 'cells' | 'decimals'>,
  { people, isWeighted }: { people: number; isWeighted: boolean },
): string {
  if (figure === null) return '–';
  switch (cells) {
    case 'percent':
      return asPercent(figure, people, decimals);
    case 'people':
    case 'mentions':
      return isWeighted ? asWeighted(figure) : asCount(figure);
    case 'mean':
      return asMean(figure);
    case 'yes':
      return figure > 0 ? crosstabRowTexts.yes : '–';
  }
}

/**
 * How many a percentage stands for, of how many; of weighted ones their sum, and how many these are. Their base is said
 * where it is not the one above the column.
 */
export function countsText(
  cell: Cell,
  column: Pick<Column, 'countedWeighted'>,
  base: Report['base'],
  isWeighted: boolean,
): string {
  const isOfMentions = base === 'mentions';
  const part = isOfMentions ? cell.mentions : cell.people;
  if (!isWeighted) return crosstabRowTexts.of(part, cell.base.people);
  const weighted = isOfMentions ? cell.weightedMentions : cell.weighted;
  return isBaseOf(cell, column)
    ? crosstabRowTexts.weightedCount(weighted, part)
    : crosstabRowTexts.weightedOf({
        weighted,
        part,
        base: cell.base.weighted,
        people: cell.base.people,
      });
}

/** Whether a cell’s weighted base is the one that its column says. */
export const isBaseOf = (
  { base }: Pick<Cell, 'base'>,
  { countedWeighted }: Pick<Column, 'countedWeighted'>,
): boolean => Math.abs(base.weighted - countedWeighted) < 1e-6;
