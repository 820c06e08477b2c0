import type { SparseRows } from './features.js';
import { LANES, laneMatrix, type Product } from './lanes.js';
import { fitting, type LogisticFit, type LogisticOptions, type WantedProduct } from './logistic.js';

/** A model to be fitted. */
export interface FitJob {
  options: LogisticOptions;
  /** @returns what can be fitted now that this is */
  done: (fit: LogisticFit) => readonly FitJob[];
}

/** Fits one model. */
export function fitLogistic(x: SparseRows, options: LogisticOptions): LogisticFit {
  const fits: LogisticFit[] = [];
  fitTogether(x, [{ options, done: (fit) => (fits.push(fit), []) }]);
  return fits[0]!;
}

/** In the order that a fit mostly asks for them, so that fits keep in step. */
const inTurn: readonly Product[] = ['kernel', 'toCommon', 'fromCommon', 'weights'];

interface Lane {
  job: FitJob;
  fitting: ReturnType<typeof fitting>;
  wants: WantedProduct;
  /** Where its products go: what it is given holds until it is given the next of that kind. */
  products: Record<Product, Float64Array>;
}

/**
 * Fits many models, several at a time side by side. Those with the most rows are fitted first, so that models beside
 * each other read about the same rows. Each is the same to the last bit whichever are fitted beside it.
 */
export function fitTogether(x: SparseRows, jobs: readonly FitJob[]): void {
  const matrix = laneMatrix(x);
  const waiting: FitJob[] = [];
  const enqueue = (more: readonly FitJob[]) => {
    waiting.push(...more);
    waiting.sort((one, other) => one.options.rows.length - other.options.rows.length);
  };
  let lanes: Lane[] = [];
  const begin = (job: FitJob) => {
    const begun = fitting(x, job.options);
    const first = begun.next();
    if (first.done) {
      enqueue(job.done(first.value));
      return;
    }
    const { length } = job.options.rows;
    const products = {
      ...{ kernel: new Float64Array(length), fromCommon: new Float64Array(length) },
      ...{ weights: new Float64Array(x.columns), toCommon: new Float64Array(x.common) },
    };
    lanes.push({ job, fitting: begun, wants: first.value, products });
  };
  const serve = (product: Product) => {
    const served = lanes.filter(({ wants }) => wants.product === product);
    if (served.length === 0) return;
    const asked = served.map(({ job, wants, products }) => ({
      ...{ vector: wants.vector, rows: job.options.rows, into: products[product] },
    }));
    matrix.multiply(product, asked);
    for (const lane of served) {
      const next = lane.fitting.next(lane.products[product]);
      if (!next.done) {
        lane.wants = next.value;
        continue;
      }
      lanes = lanes.filter((other) => other !== lane);
      enqueue(lane.job.done(next.value));
    }
  };
  enqueue(jobs);
  for (;;) {
    for (;;) {
      const job = lanes.length < LANES ? waiting.pop() : undefined;
      if (!job) break;
      begin(job);
    }
    if (lanes.length === 0) return;
    for (const product of inTurn) serve(product);
  }
}
