/** As much of a table's row as is needed to order it. */
interface CountedRow {
  id: string;
  kind: 'theme' | 'code' | 'bundle';
  cells: readonly {
    share: number | null;
    people: number;
    estimated: { estimate: { value: number } | null; sampleShare: number } | null;
  }[];
}

/**
 * The rows that most people mention, by the first column. Where a table has codes under their themes the codes are
 * taken, each once: a theme is more than each of its codes, and would stand beside them a second time.
 */
export function mostMentioned<Row extends CountedRow>(rows: readonly Row[], count: number): Row[] {
  // a code may stand under several bundles
  const codes = [
    ...new Map(rows.filter(({ kind }) => kind === 'code').map((row) => [row.id, row])).values(),
  ];
  const of = ({ cells: [first] }: Row) => {
    const estimated =
      first?.estimated && (first.estimated.estimate?.value ?? first.estimated.sampleShare);
    return estimated ?? first?.share ?? first?.people ?? 0;
  };
  return (codes.length > 0 ? codes : [...rows]).toSorted((x, y) => of(y) - of(x)).slice(0, count);
}
