import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue } from '../../test/checkValues.js';
import { correspondenceAnalysis } from './correspondence.js';

interface Expected {
  principal_inertias: number[];
  row_principal: number[][];
  col_principal: number[][];
  total_inertia?: number;
  row_masses?: number[];
  row_cos2?: number[][];
  col_cos2?: number[][];
}

test.each(['10.1', '10.2'])(
  'inertias, coordinates and squared cosines of a published table (ca 0.71.1 in R: check value %s)',
  (id) => {
    const { input, expected } = checkValue<{ table: number[][] }, Expected>(id);
    const { inertias, totalInertia, rows, columns } = correspondenceAnalysis(input.table);
    expect(inertias).toHaveLength(expected.principal_inertias.length);
    inertias.forEach((one, axis) => expect(one).toBeCloseTo(expected.principal_inertias[axis]!, 6));
    if (expected.total_inertia) expect(totalInertia).toBeCloseTo(expected.total_inertia, 6);
    for (const axis of inertias.keys()) {
      // the sign of an axis is arbitrary: rows and columns have the same
      const sign = Math.sign(rows[0]!.principal[axis]! * expected.row_principal[0]![axis]!);
      rows.forEach((row, r) =>
        expect(sign * row!.principal[axis]!).toBeCloseTo(expected.row_principal[r]![axis]!, 6),
      );
      columns.forEach((column, c) =>
        expect(sign * column!.principal[axis]!).toBeCloseTo(expected.col_principal[c]![axis]!, 6),
      );
    }
    expected.row_cos2?.forEach((cos2, r) =>
      cos2.forEach((one, axis) => expect(rows[r]!.cos2[axis]).toBeCloseTo(one, 6)),
    );
    expected.col_cos2?.forEach((cos2, c) =>
      cos2.forEach((one, axis) => expect(columns[c]!.cos2[axis]).toBeCloseTo(one, 6)),
    );
  },
);

test('the inertia is chi-square by the sum, points balance at the origin, and empty lines have no point', () => {
  const table = fc.array(
    fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 4, maxLength: 4 }),
    {
      minLength: 1,
      maxLength: 7,
    },
  );
  fc.assert(
    fc.property(table, (counts) => {
      const { totalInertia, rows, columns, inertias } = correspondenceAnalysis(counts);
      const all = counts.flat().reduce((sum, one) => sum + one, 0);
      let chiSquare = 0;
      counts.forEach((row, r) =>
        row.forEach((count, c) => {
          if (!rows[r] || !columns[c]) return;
          const expected = all * rows[r].mass * columns[c].mass;
          chiSquare += (count - expected) ** 2 / expected;
        }),
      );
      expect(all * totalInertia).toBeCloseTo(chiSquare, 6);
      counts.forEach((row, r) => expect(rows[r] === null).toBe(row.every((one) => one === 0)));
      for (const axis of inertias.keys())
        for (const points of [rows, columns])
          expect(
            points.reduce((sum, one) => sum + (one ? one.mass * one.principal[axis]! : 0), 0),
          ).toBeCloseTo(0, 6);
    }),
  );
});
