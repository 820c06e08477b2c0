import { adjust, compareShares, type Correction, type Share } from '../statistics/index.js';

export interface LetterOptions {
  correction: Correction;
  level?: number;
  isWeighted?: boolean;
}

/**
 * Compares every pair of columns of one row, as survey tables do: a cell exceeds those columns whose share is lower
 * beyond chance. The pairs of the row are the family that is corrected for. (Letters for columns: common practice, no
 * source.)
 *
 * @param cells shares of groups that have nobody in common; null for one that is not compared
 * @returns for each cell the places of the columns that it exceeds
 */
export function exceededColumns(
  cells: readonly (Share | null)[],
  { correction, level = 0.95, isWeighted = false }: LetterOptions,
): number[][] {
  const pairs: { higher: number; lower: number; p: number }[] = [];
  cells.forEach((one, i) => {
    for (let j = i + 1; j < cells.length; j++) {
      const other = cells[j];
      if (!one || !other) continue;
      const { difference, p } = compareShares(one, other, isWeighted);
      pairs.push({ higher: difference >= 0 ? i : j, lower: difference >= 0 ? j : i, p });
    }
  });
  const adjusted = adjust(
    pairs.map(({ p }) => p),
    correction,
  );
  const exceeded = cells.map((): number[] => []);
  pairs.forEach(({ higher, lower }, k) => {
    if (adjusted[k]! < 1 - level) exceeded[higher]!.push(lower);
  });
  return exceeded.map((places) => places.sort((x, y) => x - y));
}
