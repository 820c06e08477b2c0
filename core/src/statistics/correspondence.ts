/** A row or column of a table on the axes of its correspondence analysis. */
export interface MappedProfile {
  /** Its share of all that is counted. */
  mass: number;
  /** Principal coordinates, one an axis. */
  principal: number[];
  /** Squared cosines: how much of its distance from the average profile each axis shows. */
  cos2: number[];
}

/** A table as points whose distances tell how its profiles differ. */
export interface Correspondence {
  /** Of each axis, largest first. */
  inertias: number[];
  /** Chi-square of the table divided by its sum. */
  totalInertia: number;
  /** Null for a row or column of zeros, which has no profile. */
  rows: (MappedProfile | null)[];
  columns: (MappedProfile | null)[];
}

/** Axes of less inertia than this carry nothing but rounding. */
const NOTHING = 1e-12;

/**
 * Simple correspondence analysis. The sign of an axis is arbitrary: here the row that lies furthest out on it is on the
 * positive side.
 *
 * @param table counts or sums of weights, 0 or more, by row and column
 * @example
 *   correspondenceAnalysis([[30, 12, 8], [10, 25, 9], [6, 9, 28], [14, 14, 15]]).inertias // [0.1768, 0.0862] (NumPy: singular values of the standardised residuals, squared)
 * @see Greenacre (1984) Theory and applications of correspondence analysis
 */
export function correspondenceAnalysis(table: readonly (readonly number[])[]): Correspondence {
  const sumOf = (numbers: readonly number[]) => numbers.reduce((sum, one) => sum + one, 0);
  const all = sumOf(table.map(sumOf));
  const rowMass = table.map((row) => (all > 0 ? sumOf(row) / all : 0));
  const columnMass = (table[0] ?? []).map((_, c) =>
    all > 0 ? sumOf(table.map((row) => row[c]!)) / all : 0,
  );
  // standardised residuals: their squares add up to the inertia
  const residuals = table.map((row, r) =>
    row.map((count, c) => {
      const expected = rowMass[r]! * columnMass[c]!;
      return expected > 0 ? (count / all - expected) / Math.sqrt(expected) : 0;
    }),
  );
  const cross = columnMass.map((_, c) =>
    columnMass.map((__, d) => sumOf(residuals.map((row) => row[c]! * row[d]!))),
  );
  const { values, vectors } = symmetricEigen(cross);
  const axes = values
    .map((inertia, axis) => ({ inertia, axis }))
    .filter(({ inertia }) => inertia > NOTHING)
    .sort((x, y) => y.inertia - x.inertia);
  const along = axes.map(({ inertia, axis }) => {
    const column = vectors.map((row) => row[axis]!);
    const rows = residuals.map((row, r) =>
      rowMass[r]! > 0 ? sumOf(row.map((one, c) => one * column[c]!)) / Math.sqrt(rowMass[r]!) : 0,
    );
    const columns = column.map((one, c) =>
      columnMass[c]! > 0 ? (Math.sqrt(inertia) * one) / Math.sqrt(columnMass[c]!) : 0,
    );
    const furthest = rows.reduce(
      (best, one) => (Math.abs(one) > Math.abs(best) + 1e-9 ? one : best),
      0,
    );
    const sign = furthest < 0 ? -1 : 1;
    return { rows: rows.map((one) => sign * one), columns: columns.map((one) => sign * one) };
  });
  const mapped = (mass: readonly number[], of: 'rows' | 'columns') =>
    mass.map((one, i): MappedProfile | null => {
      if (one === 0) return null;
      const principal = along.map((axis) => axis[of][i]!);
      const distance = sumOf(principal.map((place) => place * place));
      return {
        mass: one,
        principal,
        cos2: principal.map((place) => (distance > 0 ? (place * place) / distance : 0)),
      };
    });
  return {
    inertias: axes.map(({ inertia }) => inertia),
    totalInertia: sumOf(axes.map(({ inertia }) => inertia)),
    rows: mapped(rowMass, 'rows'),
    columns: mapped(columnMass, 'columns'),
  };
}

const SWEEPS = 60;

/**
 * Eigenvalues and eigenvectors of a symmetric matrix by Jacobi's rotations.
 *
 * @returns vectors by row of the matrix, then by eigenvalue
 * @see Golub & Van Loan (2013) Matrix computations, § 8.5
 */
function symmetricEigen(matrix: readonly (readonly number[])[]): {
  values: number[];
  vectors: number[][];
} {
  const a = matrix.map((row) => [...row]);
  const n = a.length;
  const vectors: number[][] = a.map((_, i) => a.map((__, j) => Number(i === j)));
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let off = 0;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) off += a[p]![q]! ** 2;
    if (off < 1e-30) break;
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        if (Math.abs(a[p]![q]!) < 1e-300) continue;
        const theta = (a[q]![q]! - a[p]![p]!) / (2 * a[p]![q]!);
        const t = (theta >= 0 ? 1 : -1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        const cosine = 1 / Math.sqrt(t * t + 1);
        const sine = t * cosine;
        for (let k = 0; k < n; k++) {
          const [x, y] = [a[k]![p]!, a[k]![q]!];
          a[k]![p] = cosine * x - sine * y;
          a[k]![q] = sine * x + cosine * y;
        }
        for (let k = 0; k < n; k++) {
          const [x, y] = [a[p]![k]!, a[q]![k]!];
          a[p]![k] = cosine * x - sine * y;
          a[q]![k] = sine * x + cosine * y;
        }
        for (let k = 0; k < n; k++) {
          const [x, y] = [vectors[k]![p]!, vectors[k]![q]!];
          vectors[k]![p] = cosine * x - sine * y;
          vectors[k]![q] = sine * x + cosine * y;
        }
      }
  }
  return { values: a.map((row, i) => row[i]!), vectors };
}
