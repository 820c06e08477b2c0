import { F64_LANES } from './wasm/simdMemory.js';
import { matrixProducts, type Product } from './wasm/matrixProducts.js';
import { fitByNewton, type LogisticFit, type LogisticOptions } from './logistic.js';
import { fitWorkspace, type FitWorkspace } from './fitState.js';
import { Float32Solver } from './float32Solver.js';
import type { SparseRows } from '../features/sparseRows.js';
import { storeMatrix } from './wasm/storedMatrix.js';
import type { FitCoroutine, SolverRequest } from './fitCoroutine.js';

/** A model to be fitted. */
export interface FitJob {
  options: LogisticOptions;
  /** Jobs with a lower turn are fitted first; 0 by default. */
  turn?: number;
  /** @returns jobs that can be fitted now that this one is */
  done: (fit: LogisticFit) => readonly FitJob[];
}

/** Fits one model. */
export function fitLogistic(x: SparseRows, options: LogisticOptions): LogisticFit {
  const fits: LogisticFit[] = [];
  fitInterleaved(x, [{ options, done: (fit) => (fits.push(fit), []) }]);
  return fits[0]!;
}

const PRODUCTS = ['kernel', 'toCommon', 'fromCommon', 'model'] as const;

/** Fits that run at once: enough that the next product is requested by nearly as many fits as are computed together. */
const FITS_AT_ONCE = 48;

/** A fit that is running. */
interface RunningFit {
  job: FitJob;
  fitting: FitCoroutine<LogisticFit>;
  /** What it asks for; null while its equation is being solved. */
  wants: SolverRequest | null;
  workspace: Workspace;
}

/** The arrays of a fit, and of its products: one is valid until the fit is given the next of its kind. */
interface Workspace {
  fit: FitWorkspace;
  products: Partial<Record<Product, Float64Array>>;
}

/**
 * Fits many models, several at a time. Of jobs with the same turn those with the most rows come first, so that fits that
 * run together read about the same rows. Each model is the same to the last bit whichever run beside it.
 */
export function fitInterleaved(x: SparseRows, jobs: readonly FitJob[]): void {
  const matrix = storeMatrix(x);
  const multiply = matrixProducts(x, matrix);
  const solver = new Float32Solver(x, matrix);
  const waiting: FitJob[] = [];
  const enqueue = (more: readonly FitJob[]) => {
    waiting.push(...more);
    waiting.sort(
      (one, other) =>
        (other.turn ?? 0) - (one.turn ?? 0) || one.options.rows.length - other.options.rows.length,
    );
  };
  const underWay = new Set<RunningFit>();
  const freeWorkspaces: Workspace[] = [];
  const placeFor = (
    product: Product,
    { job: { options }, workspace: { products } }: RunningFit,
  ) => {
    if (product === 'model') return (products.model ??= new Float64Array(x.columns + x.count));
    if (product === 'toCommon') return (products.toCommon ??= new Float64Array(x.common));
    return (products[product] ??= new Float64Array(x.count)).subarray(0, options.rows.length);
  };
  const begin = (job: FitJob) => {
    const workspace = freeWorkspaces.pop() ?? { fit: fitWorkspace(x.count), products: {} };
    const fit: RunningFit = {
      job,
      fitting: fitByNewton(x, job.options, workspace.fit),
      wants: null,
      workspace,
    };
    underWay.add(fit);
    goOn(fit, fit.fitting.next());
  };
  const goOn = (fit: RunningFit, next: IteratorResult<SolverRequest, LogisticFit>) => {
    if (!next.done) {
      fit.wants = next.value;
      return;
    }
    underWay.delete(fit);
    freeWorkspaces.push(fit.workspace);
    enqueue(fit.job.done(next.value));
  };
  const wanting = (product: Product): ProductRequest[] =>
    [...underWay].flatMap((fit) =>
      fit.wants && 'product' in fit.wants && fit.wants.product === product
        ? [{ fit, vector: fit.wants.vector }]
        : [],
    );
  const serve = (product: Product, asking: readonly ProductRequest[]) => {
    const asked = asking.map(({ fit, vector }) => ({
      vector,
      rows: fit.job.options.rows,
      into: placeFor(product, fit),
    }));
    multiply(product, asked);
    asked.forEach(({ into }, i) => goOn(asking[i]!.fit, asking[i]!.fit.fitting.next(into)));
  };
  const beginEquations = () => {
    for (const fit of underWay) {
      if (solver.busy === solver.lanes) return;
      if (!fit.wants || !('equation' in fit.wants)) continue;
      solver.begin(fit.wants.equation, (solution) => goOn(fit, fit.fitting.next(solution)));
      fit.wants = null;
    }
  };
  enqueue(jobs);
  for (;;) {
    for (;;) {
      const job = underWay.size < FITS_AT_ONCE ? waiting.pop() : undefined;
      if (!job) break;
      begin(job);
    }
    if (underWay.size === 0) return;
    beginEquations();
    const fullest = PRODUCTS.map((product) => ({
      product,
      asking: wanting(product).slice(0, F64_LANES),
    })).reduce((best, one) => (one.asking.length > best.asking.length ? one : best));
    if (fullest.asking.length / F64_LANES < solver.busy / solver.lanes) solver.round();
    else serve(fullest.product, fullest.asking);
  }
}

/** A fit with the vector that it asks a product for. */
interface ProductRequest {
  fit: RunningFit;
  vector: Float64Array;
}
