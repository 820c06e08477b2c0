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

/** Solves equations in parallel lanes; a lane that is free takes the next one. */
export interface Float32Solver {
  /** How many of the lanes are solving an equation. */
  busy: () => number;
  lanes: number;
  begin: (equation: Equation, done: (solved: Float32Solution) => void) => void;
  /** One iteration of all lanes; reports those that are done. */
  round: () => void;
}

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

/**
 * Projected conjugate gradients in 32 bits. The result for one equation is the same to the last bit whatever the others
 * are.
 *
 * @see Gould, Hribar & Nocedal (2001) On the solution of equality constrained quadratic programming problems arising
 *   in optimization
 */
export function float32Solver(
  { count, common }: SparseRows,
  { memory, byColumn, rough }: StoredMatrix,
): Float32Solver {
  const bytes = VECTOR_BYTES * count;
  const byRow = () => memory.allocate(bytes);
  const at = {
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
  const triangles = memory.allocate((VECTOR_BYTES * common * (common + 1)) / 2);
  const list = { place: memory.allocate(4 * count), length: 0 };
  const oneEach = memory.allocate(VECTOR_BYTES);
  const sums = memory.allocate(2 * VECTOR_BYTES);
  const lanes: (Lane | null)[] = Array.from({ length: F32_LANES }, () => null);
  const usedBy = new Int32Array(count);
  let isListed = true;
  // a lane without a factor is preconditioned by the identity
  const ones = memory.floats32(triangles, (F32_LANES * common * (common + 1)) / 2);
  for (let row = 0; row < common; row++)
    for (let lane = 0; lane < F32_LANES; lane++)
      ones[((row * (row + 3)) / 2) * F32_LANES + lane] = 1;

  const numbersAt = (place: number) => memory.floats32(place, F32_LANES * count);
  const write = (place: number, lane: number, rows: Int32Array, vector: Float64Array) => {
    const numbers = numbersAt(place);
    for (let i = 0; i < rows.length; i++) numbers[rows[i]! * F32_LANES + lane] = vector[i]!;
  };
  const read = (place: number, lane: number, rows: Int32Array, into: Float64Array) => {
    const numbers = numbersAt(place);
    for (let i = 0; i < rows.length; i++) into[i] = numbers[rows[i]! * F32_LANES + lane]!;
  };
  const copy = (from: number, to: number, lane: number, rows: Int32Array) => {
    const [numbers, into] = [numbersAt(from), numbersAt(to)];
    for (let i = 0; i < rows.length; i++) {
      const at = rows[i]! * F32_LANES + lane;
      into[at] = numbers[at]!;
    }
  };
  const clear = (place: number, lane: number, rows: Int32Array) => {
    const numbers = numbersAt(place);
    for (let i = 0; i < rows.length; i++) numbers[rows[i]! * F32_LANES + lane] = 0;
  };
  const writeEquation = (lane: number, { rows, root, preconditioner }: Equation) => {
    write(at.root, lane, rows, root);
    write(at.inverse, lane, rows, preconditioner.inverse);
    write(at.rooted, lane, rows, preconditioner.rooted);
    clear(at.change, lane, rows);
    clear(at.product, lane, rows);
    // the rows are preconditioned first
    write(at.residual, lane, rows, root);
    const numbers = memory.floats32(triangles, F32_LANES * preconditioner.factored.length);
    for (let k = 0; k < preconditioner.factored.length; k++)
      numbers[k * F32_LANES + lane] = preconditioner.factored[k]!;
  };
  const useRows = (rows: Int32Array, change: 1 | -1) => {
    for (let i = 0; i < rows.length; i++) usedBy[rows[i]!]! += change;
    isListed = false;
  };
  const listRows = () => {
    if (isListed) return;
    const listed = memory.ints(list.place, count);
    list.length = 0;
    for (let row = 0; row < count; row++) if (usedBy[row]! > 0) listed[list.length++] = row;
    isListed = true;
  };
  /** Runs a kernel that sums by lane, and turns each sum into the factor that the next kernel takes. */
  const sumUp = (step: () => void, numberOf: (lane: Lane, sum: number) => number) => {
    memory.floats(sums, F32_LANES).fill(0);
    step();
    const summed = memory.floats(sums, F32_LANES);
    const numbers = memory.floats32(oneEach, F32_LANES);
    lanes.forEach((lane, l) => (numbers[l] = lane ? numberOf(lane, summed[l]!) : 0));
  };
  const { run } = memory;

  const multiply = () => {
    rough.fromRows(list, at.scaled, false);
    rough.toRows(list, at.scaled, false);
  };
  const divide = () => {
    if (common === 0) numbersAt(at.scaled).fill(0);
    else {
      rough.fromRows(list, at.scaled, true);
      run.solveTriangles(common, triangles, byColumn);
      rough.toRows(list, at.scaled, true);
    }
  };
  const finish = (l: number, { equation, done, ...reached }: Lane) => {
    const { rows, change, product } = equation;
    read(at.change, l, rows, change);
    read(at.product, l, rows, product);
    // the next equation must find zeros in rows that are not its own; a NaN would spread to it
    const isNumber = Number.isFinite(reached.rho);
    if (isNumber)
      for (const place of [at.root, at.inverse, at.rooted, at.divided]) clear(place, l, rows);
    else for (const place of Object.values(at)) clear(place, l, Int32Array.from(usedBy.keys()));
    useRows(rows, -1);
    lanes[l] = null;
    const { intercept, rounds, rho } = reached;
    const target = isNumber ? reached.target : 0;
    const isReached = target > 0 && rho <= target;
    done({ intercept, rounds, target, isReached });
  };
  /** Checks a lane after an iteration. */
  const goOn = (l: number, lane: Lane) => {
    const { rows, residual, accuracy } = lane.equation;
    switch (lane.phase) {
      case 'root':
        copy(at.conditioned, at.divided, l, rows);
        write(at.residual, l, rows, residual);
        lane.phase = 'start';
        break;
      case 'start':
        // otherwise the residual is below the resolution of 32 bits
        if (lane.rho > 0) lane.target = accuracy * accuracy * lane.rho;
        else finish(l, lane);
        lane.phase = 'rounds';
        break;
      case 'rounds': {
        lane.rounds += 1;
        const enough = lane.rounds < FEWEST_ROUNDS ? 1e-4 * lane.target : lane.target;
        if (!(lane.rho > enough) || lane.rounds === MOST_ROUNDS) finish(l, lane);
      }
    }
  };
  return {
    lanes: F32_LANES,
    busy: () => lanes.filter((lane) => lane !== null).length,
    begin(equation, done) {
      const free = lanes.indexOf(null);
      lanes[free] = {
        equation,
        done,
        phase: 'root',
        across: 0,
        intercept: 0,
        rho: 0,
        target: 0,
        rounds: 0,
      };
      writeEquation(free, equation);
      useRows(equation.rows, 1);
    },
    round() {
      listRows();
      if (lanes.some((lane) => lane?.phase === 'rounds')) multiply();
      const { root, direction, reached, residual, conditioned, scaled, divided, rooted } = at;
      sumUp(
        () => run.reach(bytes, direction, root, scaled, reached, sums),
        (lane, sum) => (lane.phase === 'rounds' ? lane.rho / sum : 0),
      );
      run.advance(
        bytes,
        oneEach,
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
      divide();
      sumUp(
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
      sumUp(
        () => run.project(bytes, oneEach, residual, root, conditioned, divided, sums),
        (lane, sum) => {
          const before = lane.rho;
          if (lane.phase !== 'root') lane.rho = sum;
          return lane.phase === 'rounds' ? sum / before : 0;
        },
      );
      run.turnDirection(bytes, oneEach, direction, conditioned, root, scaled);
      lanes.forEach((lane, l) => lane && goOn(l, lane));
    },
  };
}
