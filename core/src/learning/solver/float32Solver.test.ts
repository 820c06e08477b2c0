import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { buildPreconditioner } from './preconditioner.js';
import { Float32Solver, type Equation, type Float32Solution } from './float32Solver.js';
import { restrictPreconditioner } from './solveStep.js';
import type { SparseRows } from '../features/sparseRows.js';
import { storeMatrix } from './wasm/storedMatrix.js';

const COLUMNS = 6;
const COMMON = 2;
const size = fc.double({ min: -2, max: 2, noNaN: true });
const row = fc.array(size, { minLength: COLUMNS, maxLength: COLUMNS });
const example = fc.record({ row, root: fc.double({ min: 0.05, max: 2, noNaN: true }), r: size });

function fullRows(rows: number[][]): SparseRows {
  const start = Int32Array.from({ length: rows.length + 1 }, (_, i) => i * COLUMNS);
  return {
    count: rows.length,
    columns: COLUMNS,
    common: COMMON,
    start,
    column: Int32Array.from({ length: rows.length * COLUMNS }, (_, k) => k % COLUMNS),
    value: Float64Array.from(rows.flat()),
  };
}

test('what is solved solves the equation and holds the constraint, whichever rows and however many at a time', () => {
  let [all, reached] = [0, 0];
  fc.assert(
    fc.property(fc.array(example, { minLength: 24, maxLength: 40 }), (examples) => {
      // along S the residual is the intercept's alone, and nothing is left to solve
      const along = examples.map(({ root, r }) => r / root);
      fc.pre(Math.max(...along.slice(0, 12)) - Math.min(...along.slice(0, 12)) > 0.5);
      fc.pre(Math.max(...along.slice(12)) - Math.min(...along.slice(12)) > 0.5);
      const x = fullRows(examples.map(({ row }) => row));
      const solver = new Float32Solver(x, storeMatrix(x));
      // more equations than lanes, each of other rows
      const waiting = Array.from({ length: solver.lanes + 6 }, (_, left): Equation => {
        const rows = Int32Array.from(examples.keys()).filter(
          (i) => i % (solver.lanes + 6) !== left,
        );
        const of = (value: (one: (typeof examples)[number]) => number) =>
          Float64Array.from(rows, (i) => value(examples[i]!));
        const root = of((one) => one.root);
        const restricted = restrictPreconditioner(buildPreconditioner(x, rows, root), rows);
        const [change, product] = [new Float64Array(rows.length), new Float64Array(rows.length)];
        return {
          rows,
          root,
          preconditioner: restricted,
          change,
          product,
          residual: of(({ r }) => r),
          accuracy: 1e-3,
        };
      });
      const solved: [Equation, Float32Solution][] = [];
      while (waiting.length > 0 || solver.busy > 0) {
        while (waiting.length > 0 && solver.busy < solver.lanes) {
          const equation = waiting.pop()!;
          solver.begin(equation, (solution) => solved.push([equation, solution]));
        }
        solver.round();
      }
      expect(solved).toHaveLength(solver.lanes + 6);
      for (const [{ rows, root, residual, change, product }, { intercept, isReached }] of solved) {
        all += 1;
        if (!isReached) continue;
        reached += 1;
        // X'Su, and from it K S u
        const sums = Array.from({ length: COLUMNS }, (_, c) =>
          rows.reduce((sum, i, k) => sum + examples[i]!.row[c]! * root[k]! * change[k]!, 0),
        );
        let [left, whole, constraint] = [0, 0, 0];
        rows.forEach((i, k) => {
          const made = examples[i]!.row.reduce((sum, value, c) => sum + value * sums[c]!, 0);
          expect(product[k]).toBeCloseTo(made, 3);
          left += (residual[k]! - change[k]! - root[k]! * (made + intercept)) ** 2;
          whole += residual[k]! ** 2;
          constraint += root[k]! * change[k]!;
        });
        expect(Math.sqrt(left)).toBeLessThan(0.02 * Math.sqrt(whole) + 1e-6);
        expect(Math.abs(constraint)).toBeLessThan(1e-4);
      }
    }),
    { numRuns: 40 },
  );
  // what numbers of 32 bits do not reach is carried on in such of 64
  expect(reached).toBeGreaterThan(0.9 * all);
});
