import { VECTOR_BYTES, F32_LANES } from './wasm/simdMemory.js';
import type { SparseRows } from '../features/sparseRows.js';
import type { StoredMatrix } from './wasm/storedMatrix.js';

/** A preconditioner by row listed: 1 / D, S / D and L (see `Preconditioner`). */
export interface RestrictedPreconditioner {
  inverse: Float64Array;
  rooted: Float64Array;
  factored: Float32Array;
}

/** (I + S K S) u + b S = r with Σ u S = 0, to be solved for u and b, which are a step of a fit; all by row listed. */
export interface Equation {
  rows: Int32Array;
  /** S. */
  root: Float64Array;
  /** r. */
  residual: Float64Array;
  preconditioner: RestrictedPreconditioner;
  /** Relative tolerance. */
  accuracy: number;
  /** Receive u and K S u. */
  change: Float64Array;
  product: Float64Array;
}

/** The result for an equation in 32 bits. */
export interface Float32Solution {
  /** b; u and K S u are in the equation's arrays. */
  intercept: number;
  rounds: number;
  /** The target for rᵀ M⁻¹ r, and whether it is reached. */
  target: number;
  isReached: boolean;
}

/** Iterations after which an equation is returned as far as it is solved. */
const MOST_ROUNDS = 60;
/**
 * Iterations before which a small residual is not trusted: a few rows with a large residual may be
 * all that was solved.
 */
const FEWEST_ROUNDS = 3;

interface Lane {
  equation: Equation;
  done: (solved: Float32Solution) => void;
  /** A lane first preconditions its rows, then its residual, and then iterates. */
  phase: 'root' | 'start' | 'rounds';
  /** Sᵀ M⁻¹ S. */
  across: number;
  intercept: number;
  /** rᵀ M⁻¹ r. */
  rho: number;
  target: number;
  rounds: number;
}

/** Places in memory of the vectors of all lanes, a row of lanes each. */
type Vectors = Record<
  | 'root'
  | 'inverse'
  | 'rooted'
  | 'divided'
  | 'residual'
  | 'conditioned'
  | 'direction'
  | 'reached'
  | 'change'
  | 'product'
  | 'scaled',
  number
>;

/**
 * Projected conjugate gradients in 32 bits, in parallel lanes: a lane that is free takes the next equation. The result
 * for one equation is the same to the last bit whatever the others are.
 *
 * @see Gould, Hribar & Nocedal (2001) On the solution of equality constrained quadratic programming problems arising
 *   in optimization
 */
export class Float32Solver {
  readonly lanes = F32_LANES;
  private readonly count: number;
  private readonly common: number;
  private readonly matrix: StoredMatrix;
  /** Bytes of a vector of all lanes. */
  private readonly bytes: number;
  private readonly at: Vectors;
  private readonly triangles: number;
  /** Rows that some lane uses. */
  private readonly list: { place: number; length: number };
  private isListed = true;
  /** By row, how many lanes use it. */
  private readonly usedBy: Int32Array;
  /** One number a lane. */
  private readonly factors: number;
  private readonly sums: number;
  private readonly solving: (Lane | null)[] = Array.from({ length: F32_LANES }, () => null);

  constructor({ count, common }: SparseRows, matrix: StoredMatrix) {
    const { memory } = matrix;
    this.count = count;
    this.common = common;
    this.matrix = matrix;
    this.bytes = VECTOR_BYTES * count;
    const byRow = () => memory.allocate(this.bytes);
    this.at = {
      root: byRow(),
      inverse: byRow(),
      rooted: byRow(),
      divided: byRow(),
      residual: byRow(),
      conditioned: byRow(),
      direction: byRow(),
      reached: byRow(),
      change: byRow(),
      product: byRow(),
      scaled: byRow(),
    };
    this.triangles = memory.allocate((VECTOR_BYTES * common * (common + 1)) / 2);
    this.list = { place: memory.allocate(4 * count), length: 0 };
    this.factors = memory.allocate(VECTOR_BYTES);
    this.sums = memory.allocate(2 * VECTOR_BYTES);
    this.usedBy = new Int32Array(count);
    // a lane without a factor is preconditioned by the identity
    const ones = memory.floats32(this.triangles, (F32_LANES * common * (common + 1)) / 2);
    for (let row = 0; row < common; row++)
      for (let lane = 0; lane < F32_LANES; lane++)
        ones[((row * (row + 3)) / 2) * F32_LANES + lane] = 1;
  }

  /** How many of the lanes are solving an equation. */
  get busy(): number {
    return this.solving.filter((lane) => lane !== null).length;
  }

  /** Puts an equation into a free lane, of which there must be one. */
  begin(equation: Equation, done: (solved: Float32Solution) => void): void {
    const free = this.solving.indexOf(null);
    this.solving[free] = {
      equation,
      done,
      phase: 'root',
      across: 0,
      intercept: 0,
      rho: 0,
      target: 0,
      rounds: 0,
    };
    this.writeEquation(free, equation);
    this.useRows(equation.rows, 1);
  }

  /** One iteration of all lanes; reports those that are done. */
  round(): void {
    const { bytes, factors, sums, at, solving } = this;
    const { run } = this.matrix.memory;
    const { root, direction, reached, residual, conditioned, scaled, divided, rooted } = at;
    this.listRows();
    if (solving.some((lane) => lane?.phase === 'rounds')) this.multiply();
    this.sumUp(
      () => run.reach(bytes, direction, root, scaled, reached, sums),
      (lane, sum) => (lane.phase === 'rounds' ? lane.rho / sum : 0),
    );
    run.advance(
      bytes,
      factors,
      direction,
      scaled,
      reached,
      at.change,
      at.product,
      residual,
      at.inverse,
      rooted,
      conditioned,
    );
    this.divide();
    this.sumUp(
      () => run.subtractBack(bytes, conditioned, rooted, scaled, root, sums),
      (lane, sum) => {
        if (lane.phase === 'root') {
          lane.across = sum;
          return 0;
        }
        const more = sum / lane.across;
        lane.intercept += more;
        return more;
      },
    );
    this.sumUp(
      () => run.project(bytes, factors, residual, root, conditioned, divided, sums),
      (lane, sum) => {
        const before = lane.rho;
        if (lane.phase !== 'root') lane.rho = sum;
        return lane.phase === 'rounds' ? sum / before : 0;
      },
    );
    run.turnDirection(bytes, factors, direction, conditioned, root, scaled);
    solving.forEach((lane, l) => lane && this.advancePhase(l, lane));
  }

  private numbersAt(place: number): Float32Array {
    return this.matrix.memory.floats32(place, F32_LANES * this.count);
  }

  private write(place: number, lane: number, rows: Int32Array, vector: Float64Array): void {
    const numbers = this.numbersAt(place);
    for (let i = 0; i < rows.length; i++) numbers[rows[i]! * F32_LANES + lane] = vector[i]!;
  }

  private read(place: number, lane: number, rows: Int32Array, into: Float64Array): void {
    const numbers = this.numbersAt(place);
    for (let i = 0; i < rows.length; i++) into[i] = numbers[rows[i]! * F32_LANES + lane]!;
  }

  private copy(from: number, to: number, lane: number, rows: Int32Array): void {
    const [numbers, into] = [this.numbersAt(from), this.numbersAt(to)];
    for (let i = 0; i < rows.length; i++) {
      const at = rows[i]! * F32_LANES + lane;
      into[at] = numbers[at]!;
    }
  }

  private clear(place: number, lane: number, rows: Int32Array): void {
    const numbers = this.numbersAt(place);
    for (let i = 0; i < rows.length; i++) numbers[rows[i]! * F32_LANES + lane] = 0;
  }

  private writeEquation(lane: number, { rows, root, preconditioner }: Equation): void {
    const { at } = this;
    this.write(at.root, lane, rows, root);
    this.write(at.inverse, lane, rows, preconditioner.inverse);
    this.write(at.rooted, lane, rows, preconditioner.rooted);
    this.clear(at.change, lane, rows);
    this.clear(at.product, lane, rows);
    // the rows are preconditioned first
    this.write(at.residual, lane, rows, root);
    const { factored } = preconditioner;
    const numbers = this.matrix.memory.floats32(this.triangles, F32_LANES * factored.length);
    for (let k = 0; k < factored.length; k++) numbers[k * F32_LANES + lane] = factored[k]!;
  }

  private useRows(rows: Int32Array, change: 1 | -1): void {
    for (let i = 0; i < rows.length; i++) this.usedBy[rows[i]!]! += change;
    this.isListed = false;
  }

  private listRows(): void {
    if (this.isListed) return;
    const { list, count, usedBy } = this;
    const listed = this.matrix.memory.ints(list.place, count);
    list.length = 0;
    for (let row = 0; row < count; row++) if (usedBy[row]! > 0) listed[list.length++] = row;
    this.isListed = true;
  }

  /** Runs a kernel that sums by lane, and turns each sum into the factor that the next kernel takes. */
  private sumUp(step: () => void, factorOf: (lane: Lane, sum: number) => number): void {
    const { memory } = this.matrix;
    memory.floats(this.sums, F32_LANES).fill(0);
    step();
    const summed = memory.floats(this.sums, F32_LANES);
    const factors = memory.floats32(this.factors, F32_LANES);
    this.solving.forEach((lane, l) => (factors[l] = lane ? factorOf(lane, summed[l]!) : 0));
  }

  private multiply(): void {
    const { rough } = this.matrix;
    rough.fromRows(this.list, this.at.scaled, false);
    rough.toRows(this.list, this.at.scaled, false);
  }

  private divide(): void {
    const { common, at, list, triangles } = this;
    const { rough, byColumn, memory } = this.matrix;
    if (common === 0) {
      this.numbersAt(at.scaled).fill(0);
      return;
    }
    rough.fromRows(list, at.scaled, true);
    memory.run.solveTriangles(common, triangles, byColumn);
    rough.toRows(list, at.scaled, true);
  }

  private finish(l: number, { equation, done, ...reached }: Lane): void {
    const { at, usedBy } = this;
    const { rows, change, product } = equation;
    this.read(at.change, l, rows, change);
    this.read(at.product, l, rows, product);
    // the next equation must find zeros in rows that are not its own; a NaN would spread to it
    const isNumber = Number.isFinite(reached.rho);
    if (isNumber)
      for (const place of [at.root, at.inverse, at.rooted, at.divided]) this.clear(place, l, rows);
    else
      for (const place of Object.values(at)) this.clear(place, l, Int32Array.from(usedBy.keys()));
    this.useRows(rows, -1);
    this.solving[l] = null;
    const { intercept, rounds, rho } = reached;
    const target = isNumber ? reached.target : 0;
    const isReached = target > 0 && rho <= target;
    done({ intercept, rounds, target, isReached });
  }

  /** Checks a lane after an iteration. */
  private advancePhase(l: number, lane: Lane): void {
    const { at } = this;
    const { rows, residual, accuracy } = lane.equation;
    switch (lane.phase) {
      case 'root':
        this.copy(at.conditioned, at.divided, l, rows);
        this.write(at.residual, l, rows, residual);
        lane.phase = 'start';
        break;
      case 'start':
        // otherwise the residual is below the resolution of 32 bits
        if (lane.rho > 0) lane.target = accuracy * accuracy * lane.rho;
        else this.finish(l, lane);
        lane.phase = 'rounds';
        break;
      case 'rounds': {
        lane.rounds += 1;
        const enough = lane.rounds < FEWEST_ROUNDS ? 1e-4 * lane.target : lane.target;
        if (!(lane.rho > enough) || lane.rounds === MOST_ROUNDS) this.finish(l, lane);
      }
    }
  }
}
