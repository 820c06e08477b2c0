import type { SparseRows } from './sparseRows.js';
import { laneMatrix, lanesOf, type Product } from './lanes.js';
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

/** What fits can wait for. */
const kinds = (['kernel', 'toCommon', 'fromCommon', 'weights'] as const).flatMap((product) =>
  [true, false].map((isRough) => ({ product, isRough, lanes: lanesOf(isRough) })),
);
type Kind = (typeof kinds)[number];

/** So many fits are under way at once: enough for some product to be wanted by nearly as many as it is worked out for. */
const UNDER_WAY = 64;

interface Lane {
  job: FitJob;
  fitting: ReturnType<typeof fitting>;
  wants: WantedProduct;
  /** Where its products go: what it is given holds until it is given the next of that kind. */
  products: Partial<Record<Product, Float64Array>>;
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
  const lengthOf = (product: Product, { options }: FitJob): number => {
    if (product === 'weights') return x.columns;
    return product === 'toCommon' ? x.common : options.rows.length;
  };
  const begin = (job: FitJob) => {
    const begun = fitting(x, job.options);
    const first = begun.next();
    if (first.done) {
      enqueue(job.done(first.value));
      return;
    }
    lanes.push({ job, fitting: begun, wants: first.value, products: {} });
  };
  const waitingFor = ({ product, isRough, lanes: most }: Kind) =>
    lanes
      .filter(({ wants }) => wants.product === product && (wants.isRough ?? false) === isRough)
      .slice(0, most);
  const serve = ({ product, isRough }: Kind, served: readonly Lane[]) => {
    const asked = served.map(({ job, wants, products }) => ({
      ...{ vector: wants.vector, rows: job.options.rows },
      into: (products[product] ??= new Float64Array(lengthOf(product, job))),
    }));
    matrix.multiply(product, isRough, asked);
    for (const lane of served) {
      const next = lane.fitting.next(lane.products[product]!);
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
      const job = lanes.length < UNDER_WAY ? waiting.pop() : undefined;
      if (!job) break;
      begin(job);
    }
    if (lanes.length === 0) return;
    const fullest = kinds
      .map((kind) => ({ kind, served: waitingFor(kind) }))
      .reduce((best, one) =>
        one.served.length / one.kind.lanes > best.served.length / best.kind.lanes ? one : best,
      );
    serve(fullest.kind, fullest.served);
  }
}
