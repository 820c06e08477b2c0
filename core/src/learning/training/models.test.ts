import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkValue } from '../../../test/checkValues.js';
import { scoreRows } from '../../../test/scoreRows.js';
import { vectoriser } from '../features/features.js';
import type { SparseRows } from '../features/sparseRows.js';
import { assignFolds } from './folds.js';
import { fitLogistic } from '../solver/fitInterleaved.js';
import { sigmoid } from '../solver/linearModel.js';
import {
  averagePrecision,
  bestF1Threshold,
  brierScore,
  f1,
  outcomeAt,
  plugInThreshold,
  precision,
  recall,
} from '../evaluation/metrics.js';
import { fitPlatt } from '../evaluation/calibration.js';
import { characterRuns } from '../features/lexicon.js';
import { learnVocabulary } from '../features/vocabulary.js';

describe('features', () => {
  test('words and pairs as tf-idf (scikit-learn TfidfVectorizer: check value 5.1)', () => {
    type Expected = {
      vocabulary_in_index_order: string[];
      idf: number[];
      'matrix_sparse_rows_[index,value]': [number, number][][];
    };
    const { input, expected } = checkValue<{ texts: string[] }, Expected>('5.1');
    const vocabulary = learnVocabulary(input.texts, { minAnswers: 1 });
    const vectorise = vectoriser(vocabulary);
    const columns = expected.vocabulary_in_index_order.map((feature) => {
      const [word, next] = vocabulary.wordsOf(feature);
      return next === undefined
        ? vocabulary.words.column[word!]!
        : vocabulary.pairColumn(word!, next);
    });
    expect(columns.map((column) => vocabulary.idf[column])).toEqual(
      expected.idf.map((idf) => expect.closeTo(idf, 9)),
    );
    input.texts.forEach((text, t) => {
      const vector = vectorise(text);
      columns.forEach((column, c) => {
        const value = vector.values[vector.columns.indexOf(column)] ?? 0;
        const row = expected['matrix_sparse_rows_[index,value]'][t]!;
        expect(value).toBeCloseTo(row.find(([index]) => index === c)?.[1] ?? 0, 9);
      });
    });
  });

  test('runs of characters inside words (scikit-learn char_wb: check value 5.2)', () => {
    const { expected } = checkValue<unknown, { ngrams_in_order: string[] }>('5.2');
    expect(['too', 'slow!'].flatMap((word) => characterRuns(word, 3, 5))).toEqual(
      expected.ngrams_in_order,
    );
  });
});

const dense = (x: number[][]): SparseRows => ({
  count: x.length,
  start: Int32Array.from({ length: x.length + 1 }, (_, r) => r * x[0]!.length),
  column: Int32Array.from(x.flatMap((row) => [...row.keys()])),
  value: Float64Array.from(x.flat()),
  columns: x[0]!.length,
  common: 0,
});

describe('logistic regression (exact minimiser in numpy, scikit-learn: check value 5.4)', () => {
  type Fit = { coef: number[]; intercept: number; class_weights?: [number, number] };
  const { input, expected } = checkValue<
    { X: number[][]; y: number[] },
    Record<'class_weight_none' | 'class_weight_balanced' | 'C_0.1' | 'C_10', Fit>
  >('5.4');
  const x = dense(input.X);
  const rows = Int32Array.from(input.y.keys());
  const labels = Uint8Array.from(input.y);

  test.each([
    ['class_weight_none', 1],
    ['class_weight_balanced', 1],
    ['C_0.1', 0.1],
    ['C_10', 10],
  ] as const)('%s', (name, c) => {
    const { coef, intercept, class_weights: [no, yes] = [1, 1] } = expected[name];
    const importance = Float64Array.from(labels, (y) => (y === 1 ? yes : no));
    const model = fitLogistic(x, { rows, labels, importance, c });
    expect([...model.weights]).toEqual(coef.map((one) => expect.closeTo(one, 5)));
    expect(model.intercept).toBeCloseTo(intercept, 5);
    expect(scoreRows(x, rows, model)[3]).toBeCloseTo(
      input.X[3]!.reduce((sum, value, j) => sum + value * coef[j]!, intercept),
      4,
    );
  });

  test('a row of importance 2 counts as two rows', () => {
    const importance = Float64Array.from(labels, (_, i) => (i === 5 ? 2 : 1));
    const once = fitLogistic(x, { rows, labels, importance, c: 1 });
    const twice = fitLogistic(dense([...input.X, input.X[5]!]), {
      rows: Int32Array.from([...rows, rows.length]),
      labels: Uint8Array.from([...labels, labels[5]!]),
      importance: new Float64Array(labels.length + 1).fill(1),
      c: 1,
    });
    expect([...once.weights]).toEqual([...twice.weights].map((one) => expect.closeTo(one, 5)));
  });
});

test('Platt scaling (Platt 1999, Lin, Lin & Weng 2007: check value 5.6)', () => {
  type Expected = { A: number; B: number; calibrated: number[] };
  const { input, expected } = checkValue<{ scores: number[]; y: number[] }, Expected>('5.6');
  const scores = Float64Array.from(input.scores);
  const { slope, shift } = fitPlatt(scores, Uint8Array.from(input.y));
  expect(slope).toBeCloseTo(-expected.A, 6);
  expect(shift).toBeCloseTo(-expected.B, 6);
  expect([...scores].map((score) => sigmoid(slope * score + shift))).toEqual(
    expected.calibrated.map((p) => expect.closeTo(p, 6)),
  );
});

describe('metrics', () => {
  test('precision, recall and F1 by label (scikit-learn: check value 5.8)', () => {
    type Figures = { precision: number[]; recall: number[]; f1: number[] };
    const { input, expected } = checkValue<
      { y_true: number[][]; y_pred: number[][] },
      { per_label: Figures }
    >('5.8');
    [0, 1, 2, 3].forEach((label) => {
      const outcome = outcomeAt(
        Float64Array.from(input.y_pred, (row) => row[label]!),
        Uint8Array.from(input.y_true, (row) => row[label]!),
        0.5,
      );
      expect(precision(outcome)).toBeCloseTo(expected.per_label.precision[label]!, 10);
      expect(recall(outcome)).toBeCloseTo(expected.per_label.recall[label]!, 10);
      expect(f1(outcome)).toBeCloseTo(expected.per_label.f1[label]!, 10);
    });
  });

  const { input } = checkValue<{ y: number[]; p: number[] }, unknown>('5.10');
  const p = Float64Array.from(input.p);
  const labels = Uint8Array.from(input.y);

  test('average precision with ties, Brier score (scikit-learn: check value 5.9)', () => {
    type Expected = { average_precision: number; brier: number };
    const { expected } = checkValue<unknown, Expected>('5.9');
    expect(averagePrecision(p, labels)).toBeCloseTo(expected.average_precision, 10);
    expect(brierScore(p, labels)).toBeCloseTo(expected.brier, 10);
  });

  test('F1 at every line, and the best line (scikit-learn: check value 5.10)', () => {
    type Expected = { thresholds: number[]; f1: number[]; best: [number, number] };
    const { expected } = checkValue<unknown, Expected>('5.10');
    expected.thresholds.forEach((threshold, i) =>
      expect(f1(outcomeAt(p, labels, threshold))).toBeCloseTo(expected.f1[i]!, 10),
    );
    const threshold = bestF1Threshold(p, labels);
    expect(f1(outcomeAt(p, labels, threshold))).toBeCloseTo(expected.best[0], 10);
  });

  test('the plug-in line has the highest expected F1 of all lines (Lipton et al. 2014)', () => {
    const probabilities = fc.array(fc.double({ min: 0.01, max: 0.99, noNaN: true }), {
      minLength: 1,
    });
    fc.assert(
      fc.property(probabilities, (values) => {
        const total = values.reduce((sum, value) => sum + value, 0);
        const expectedF1 = (threshold: number) => {
          const above = values.filter((value) => value >= threshold);
          return (2 * above.reduce((sum, value) => sum + value, 0)) / (above.length + total);
        };
        const best = expectedF1(plugInThreshold(Float64Array.from(values)));
        for (const threshold of values)
          expect(expectedF1(threshold)).toBeLessThanOrEqual(best + 1e-12);
      }),
    );
  });
});

test('folds keep duplicates together and spread positives evenly (Kohavi 1995: check value 5.11)', () => {
  const example = fc.record({ positive: fc.boolean(), key: fc.integer({ min: 0, max: 60 }) });
  fc.assert(
    fc.property(fc.array(example, { minLength: 5 }), fc.nat(), (examples, seed) => {
      const labels = Uint8Array.from(examples, (one) => Number(one.positive));
      const keys = examples.map((one) => String(one.key));
      const folds = assignFolds(labels, keys, 5, seed);
      expect(assignFolds(labels, keys, 5, seed)).toEqual(folds);
      examples.forEach((one, i) =>
        examples.forEach((other, j) => {
          if (one.key === other.key) expect(folds[i]).toBe(folds[j]);
        }),
      );
      if (new Set(keys).size < keys.length) return;
      const positives = [0, 1, 2, 3, 4].map(
        (fold) => examples.filter((one, i) => one.positive && folds[i] === fold).length,
      );
      expect(Math.max(...positives) - Math.min(...positives)).toBeLessThanOrEqual(1);
    }),
  );
});
