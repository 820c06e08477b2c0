/** What the figures of a write-up are read from: a table as the report gives it. */
export interface FigureTable {
  columns: readonly {
    key: string;
    label: string;
    under: string | null;
    settled: number;
    answered: number;
    asked: number;
    /** People whose answers count, or whom an estimate rests on. */
    counted: number;
  }[];
  rows: readonly {
    kind: 'theme' | 'code' | 'bundle';
    id: string;
    parentId: string | null;
    name: string;
    cells: readonly FigureCell[];
  }[];
}
export interface FigureCell {
  people: number;
  share: number | null;
  interval: readonly [number, number] | null;
  base: { people: number };
  /** People of the base for whom it is not decided. */
  undecided: number;
  /** Of an estimate: how many answers it rests on. */
  estimated: { sampled: number } | null;
  exceeds: readonly string[];
  rest: 'higher' | 'lower' | null;
}

/** Which number a figure in a text is: of a row in a column of one of its tables. */
export interface FigureRef {
  table: string;
  row: string;
  column: string;
  what: 'share' | 'people' | 'base' | 'interval' | 'undecided';
}

/** How numbers are written: as the reader's language has them. */
export interface FigureFormat {
  count: (value: number) => string;
  percent: (share: number, base: number) => string;
}

/** A figure as it is now; null when its row or column is no longer in the table. */
export function figureText(
  table: FigureTable | undefined,
  { row, column, what }: Omit<FigureRef, 'table'>,
  { count, percent }: FigureFormat,
): string | null {
  const place = table?.columns.findIndex(({ key }) => key === column) ?? -1;
  const cell = table?.rows.find(({ id }) => id === row)?.cells[place];
  if (!cell) return null;
  const base = cell.base.people;
  const basis = cell.estimated?.sampled ?? base;
  switch (what) {
    case 'share':
      return cell.share === null ? '–' : percent(cell.share, basis);
    case 'people':
      return count(cell.people);
    case 'base':
      return count(base);
    case 'interval':
      return cell.interval ? cell.interval.map((end) => percent(end, basis)).join(' to ') : '–';
    case 'undecided':
      return count(cell.undecided);
  }
}
