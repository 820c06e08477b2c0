import { RowList } from './findings.js';
import type { DuplicateChoice } from './settings.js';

/** Which rows are imported, and under which id, when ids repeat, are blank or are known already. */
export interface IdPlan {
  /** Rows that are not imported. */
  skipped: number[];
  /** Ids that differ from what the row says. */
  renamed: [row: number, id: string][];
  blank: RowList;
  duplicate: RowList;
  known: RowList;
}

/** Keeps the ids of a sheet as its rows go by, and settles in the end what becomes of each. */
export function planIds(hasIds: boolean, known: ReadonlySet<string>) {
  const rowsOf = new Map<string, number[]>();
  const blank = new RowList();
  const renamed: [number, string][] = [];
  return {
    add(row: number, written: string): void {
      let id = written;
      if (id === '') {
        id = hasIds ? `row ${row}` : String(row);
        renamed.push([row, id]);
        if (hasIds) blank.add(row);
      }
      const rows = rowsOf.get(id);
      if (rows) rows.push(row);
      else rowsOf.set(id, [row]);
    },
    /** Rows left out are those of known ids and, by choice, of repeated ones. */
    settle(duplicates: DuplicateChoice): IdPlan {
      const skipped: number[] = [];
      const repeated: number[] = [];
      const knownRows: number[] = [];
      for (const [id, rows] of rowsOf) {
        if (known.has(id)) {
          knownRows.push(...rows);
          skipped.push(...rows);
          continue;
        }
        if (rows.length <= 1) continue;
        repeated.push(...rows);
        if (duplicates === 'first') skipped.push(...rows.slice(1));
        else if (duplicates === 'last') skipped.push(...rows.slice(0, -1));
        else if (duplicates === 'suffix')
          for (const row of rows.slice(1)) renamed.push([row, freeId(id)]);
      }
      const inOrder = (rows: number[]) => {
        const list = new RowList();
        for (const row of rows.sort((x, y) => x - y)) list.add(row);
        return list;
      };
      return {
        skipped: skipped.sort((x, y) => x - y),
        renamed,
        blank,
        duplicate: inOrder(repeated),
        known: inOrder(knownRows),
      };
    },
  };

  function freeId(id: string): string {
    for (let n = 2; ; n++) {
      const free = `${id} (${n})`;
      if (known.has(free) || rowsOf.has(free)) continue;
      rowsOf.set(free, []);
      return free;
    }
  }
}
