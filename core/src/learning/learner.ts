import type { SparseRows } from './features.js';
import { asLinear, fitKernel, scoreByKernel, type Gram, type KernelModel } from './kernel.js';
import {
  fitLogistic,
  scoreRows,
  type LinearModel,
  type LogisticFit,
  type LogisticOptions,
} from './logistic.js';

/** A fitted model that can score rows and be carried on from. */
export interface Fit {
  score(rows: Int32Array): Float64Array;
  /** As weights of columns. */
  linear(): LinearModel;
  kernel: KernelModel | null;
  columns: LogisticFit | null;
}

/** Fits by the products of rows where these were worked out, and by the columns where there are too many rows. */
export function learner(x: SparseRows, gram: Gram | null) {
  return (options: Omit<LogisticOptions, 'from'>, from?: Fit): Fit => {
    if (!gram) {
      const model = fitLogistic(x, { ...options, ...(from?.columns && { from: from.columns }) });
      const { weights, intercept } = model;
      return {
        ...{ kernel: null, columns: model },
        score: (rows) => scoreRows(x, rows, model),
        linear: () => ({ weights, intercept }),
      };
    }
    const kernel = fitKernel(gram, options, from?.kernel ?? undefined);
    let linear: LinearModel | null = null;
    const asWeights = () => (linear ??= asLinear(x, gram, kernel));
    return {
      ...{ kernel, columns: null },
      linear: asWeights,
      score: (rows) =>
        rows.every((row) => gram.placeOf.has(row))
          ? scoreByKernel(gram, kernel, rows)
          : scoreRows(x, rows, asWeights()),
    };
  };
}
