/** Something about a sheet that the researcher should know before it is imported. */
export interface Finding {
  code: string;
  /** `stop`: the sheet cannot be imported like this. `notice`: it can, and this is what happens. */
  kind: 'stop' | 'notice';
  /** What was found and what will be done, in a sentence. */
  sentence: string;
  /** How many rows are concerned, and the numbers of the first of them, as in the file. */
  count: number;
  rows: number[];
  /** The column or variable concerned, where it is one. */
  about: string;
}

const ROWS_KEPT = 1_000;

/** Rows that something was found in: counted, the first of them kept. */
export class RowList {
  count = 0;
  readonly rows: number[] = [];
  add(row: number): void {
    if (this.rows.at(-1) === row) return;
    this.count += 1;
    if (this.rows.length < ROWS_KEPT) this.rows.push(row);
  }
}

export type FindingList = ReturnType<typeof findingList>;

/** Gathers findings; a notice about no row at all is none. */
export function findingList() {
  const findings: Finding[] = [];
  const noRows: Pick<RowList, 'count' | 'rows'> = new RowList();
  return {
    findings,
    stop: (code: string, sentence: string, { count, rows } = noRows, about = '') => {
      findings.push({ code, kind: 'stop', sentence, count, rows, about });
    },
    notice: (code: string, sentence: string, { count, rows }: RowList, about = '') => {
      if (count > 0) findings.push({ code, kind: 'notice', sentence, count, rows, about });
    },
    /** A notice about the sheet as a whole. */
    remark: (code: string, sentence: string, about = '') => {
      findings.push({ code, kind: 'notice', sentence, count: 0, rows: [], about });
    },
  };
}
