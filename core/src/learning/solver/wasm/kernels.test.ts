import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import wabt from 'wabt';
import { near } from '../../../../test/near.js';
import { scoreRows } from '../../../../test/scoreRows.js';
import type { SparseRows } from '../../features/sparseRows.js';
import { fitLogistic, fitInterleaved, type FitJob } from '../fitInterleaved.js';
import { kernelsBinary } from './kernelsBinary.js';
import { simdScorer } from './simdScorer.js';
import { approximateSigmoid, sigmoid } from '../linearModel.js';
import type { LogisticFit } from '../logistic.js';
import { buildPreconditioner, solveCholesky } from '../preconditioner.js';

const file = (name: string) => readFileSync(new URL(name, import.meta.url), 'utf8');

test('what is run is what kernels.wat says', async () => {
  const assembler = await wabt();
  const { buffer } = assembler
    .parseWat('kernels.wat', file('kernels.wat'), { simd: true })
    .toBinary({});
  expect(kernelsBinary).toBe(Buffer.from(buffer).toString('base64'));
});

const COLUMNS = 7;
const number = fc.double({ min: -2, max: 2, noNaN: true });
const rowOfNumbers = fc.array(fc.tuple(fc.nat(COLUMNS - 1), number), { maxLength: COLUMNS });
const asRows = (rows: [number, number][][], columns = COLUMNS, common = 2): SparseRows => {
  const entries = rows.map((row) => [...new Map(row)].sort(([one], [other]) => one - other));
  const start = [0];
  for (const row of entries) start.push(start.at(-1)! + row.length);
  return {
    count: rows.length,
    start: Int32Array.from(start),
    column: Int32Array.from(entries.flatMap((row) => row.map(([column]) => column))),
    value: Float64Array.from(entries.flatMap((row) => row.map(([, value]) => value))),
    columns,
    common,
  };
};

test('rows are scored by any number of models, chunk after chunk, by derived columns too', () => {
  const model = fc.array(number, { minLength: COLUMNS + 1, maxLength: COLUMNS + 1 });
  const rows = fc.array(rowOfNumbers, { maxLength: 9 });
  fc.assert(
    fc.property(
      fc.array(model, { minLength: 1, maxLength: 20 }),
      fc.array(fc.tuple(rows, rows), { maxLength: 4 }),
      (numbers, chunks) => {
        const models = numbers.map((one) => ({
          weights: Float64Array.from(one.slice(0, -1)),
          intercept: one[COLUMNS]!,
        }));
        const scorer = simdScorer(COLUMNS, models, 9 * 4, 'f64');
        for (const [further, chunk] of chunks) {
          const y = asRows(further);
          const first = scorer.derive(y);
          const x = asRows(chunk);
          const scores = scorer.score(x).map((ofModel) => [...ofModel]);
          const three = further.map((_, i): [number, number][] => [[first + i, 3]]);
          const derived = scorer.score(asRows(three, COLUMNS + 36));
          const places = (all: unknown[]) => Int32Array.from(all.keys());
          models.forEach((one, m) => {
            expect(scores[m]).toEqual(near(scoreRows(x, places(chunk), one)));
            const { weights, intercept } = one;
            const whole = scoreRows(y, places(further), { weights, intercept: 0 });
            expect([...derived[m]!]).toEqual(near(whole.map((score) => 3 * score + intercept)));
            const { numbers: inPlace, first: at, step } = scorer.weightsOf(m);
            expect(further.map((_, i) => inPlace[at + step * (first + i)])).toEqual(near(whole));
          });
        }
      },
    ),
  );
});

test('the sigmoid from a table is as near as it says', () => {
  fc.assert(
    fc.property(
      fc.double({ noNaN: true }),
      fc.double({ min: -20, max: 20, noNaN: true }),
      (any, near) => {
        for (const f of [any, near])
          expect(Math.abs(approximateSigmoid(f) - sigmoid(f))).toBeLessThan(2e-7);
      },
    ),
    {
      examples: [
        [18, -18],
        [Infinity, -Infinity],
      ],
    },
  );
});

test('models are at their least wherever they begin, and alike to the last bit alone and beside others', () => {
  const example = fc.record({
    row: rowOfNumbers,
    label: fc.boolean(),
    weight: fc.constantFrom(1, 3),
  });
  const examples = fc.array(example, { minLength: 6, maxLength: 24 });
  fc.assert(
    fc.property(examples, fc.constantFrom(1, 4, 16), (all, c) => {
      const x = asRows(all.map(({ row }) => row));
      const importance = Float64Array.from(all, ({ weight }) => weight);
      // the labels moved on by one place for each model, each with other rows left out
      const jobs = all.slice(0, 12).map((_, moved) => ({
        rows: Int32Array.from(all.keys()).filter((row) => row % 12 !== moved),
        labels: Uint8Array.from(all, (_, i) => Number(all[(i + moved) % all.length]!.label)),
        importance,
        c,
        tolerance: 1e-9,
      }));
      fc.pre(
        jobs.every(
          ({ rows, labels }) => new Set(Array.from(rows, (row) => labels[row])).size === 2,
        ),
      );
      const cold: LogisticFit[] = [];
      const carriedOn: LogisticFit[] = [];
      const every = Int32Array.from(all.keys());
      fitInterleaved(
        x,
        jobs.flatMap((options, i): FitJob[] => [
          { options, done: (fit) => ((cold[i] = fit), []) },
          {
            options: { ...options, rows: every },
            done: (from) => [
              { options: { ...options, from }, done: (fit) => ((carriedOn[i] = fit), []) },
            ],
          },
        ]),
      );
      jobs.forEach((options, i) => {
        const alone = fitLogistic(x, options);
        expect(cold[i]!.weights).toEqual(alone.weights);
        expect(cold[i]!.intercept).toBe(alone.intercept);
        const { rows, labels } = options;
        const scores = scoreRows(x, rows, alone);
        expect([...alone.scores]).toEqual(near(scoreRows(x, every, alone)));
        // the first derivatives are nil: the definition of the least, whatever way led there
        const slope = alone.weights.map((weight) => weight / c);
        let atIntercept = 0;
        rows.forEach((row, k) => {
          const off = importance[row]! * (sigmoid(scores[k]!) - labels[row]!);
          for (let e = x.start[row]!; e < x.start[row + 1]!; e++)
            slope[x.column[e]!]! += off * x.value[e]!;
          atIntercept += off;
        });
        for (const derivative of [...slope, atIntercept])
          expect(Math.abs(derivative)).toBeLessThan(5e-7);
        const begun = scoreRows(x, rows, carriedOn[i]!);
        begun.forEach((score, k) => expect(score).toBeCloseTo(scores[k]!, 3));
      });
    }),
    { numRuns: 60, endOnFailure: true },
  );
});

test('the block of common columns is I + Σ s² / (1 + s² · rest) · e · eᵀ over the rows, each time again', () => {
  const [columns, common] = [21, 18];
  const row = fc.array(fc.tuple(fc.nat(columns - 1), number), { maxLength: columns });
  const root = fc.double({ min: 0.1, max: 2, noNaN: true });
  fc.assert(
    fc.property(fc.array(fc.tuple(row, root), { minLength: 1, maxLength: 80 }), (given) => {
      const x = asRows(
        given.map(([entries]) => entries),
        columns,
        common,
      );
      const rows = Int32Array.from(given.keys());
      const right = Array.from({ length: common }, (_, p) => p + 1);
      for (const scale of [1, 3]) {
        const roots = Float64Array.from(given, ([, one]) => scale * one);
        const { factored } = buildPreconditioner(x, rows, roots);
        const solved = solveCholesky(factored, Float64Array.from(right));
        const back = Array.from(solved);
        given.forEach(([entries], i) => {
          const all = [...new Map(entries)];
          const shared = all.filter(([column]) => column < common);
          const rest = all.reduce(
            (sum, [column, value]) => sum + (column < common ? 0 : value ** 2),
            0,
          );
          const along = shared.reduce((sum, [column, value]) => sum + value * solved[column]!, 0);
          const weight = roots[i]! ** 2 / (1 + roots[i]! ** 2 * rest);
          for (const [column, value] of shared) back[column]! += weight * along * value;
        });
        back.forEach((one, p) => expect(Math.abs(one - right[p]!)).toBeLessThan(1e-3));
      }
    }),
  );
});
