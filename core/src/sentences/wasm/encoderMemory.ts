import { wasmModule, type WasmMemory } from '../../wasm/index.js';
import type { PackedMatrix } from '../encoderFile.js';
import { encoderBinary } from './encoderBinary.js';

/** `encoder.wat` documents the arguments. */
type Kernel = (...placesAndNumbers: number[]) => void;
export type EncoderMemory = WasmMemory<{
  roundRows: Kernel;
  multiply: Kernel;
  scoreTokens: Kernel;
  mixTokens: Kernel;
}>;
export const encoderMemory: () => EncoderMemory = wasmModule(encoderBinary);

/** A matrix in an instance's memory. */
export interface StoredMatrix {
  inner: number;
  columns: number;
  wholes: number;
  scales: number;
  bias: number;
  /** How long a block of a row's whole numbers may be. */
  longestBlock: number;
}

/** Where rows stand that are multiplied, as numbers and as whole numbers with scales, and where the products go. */
export interface ProductPlaces {
  input: number;
  wholes: number;
  scales: number;
  result: number;
}

/** Rows that a product takes together. */
export const ROWS_TOGETHER = 4;
/** Whole numbers whose products are summed before they are scaled. */
const BLOCK = 32;
/** Sums of products of whole numbers stay below this; what rounding adds is less than the rest. */
const LARGEST_SUM = 0.98 * 2 ** 31;

export function storeMatrix(
  memory: EncoderMemory,
  matrix: PackedMatrix,
  bias: Float32Array,
): StoredMatrix {
  const { inner, columns } = matrix;
  const wholes = memory.allocate(matrix.wholes.byteLength);
  const scales = memory.allocate(4 * columns);
  const biasPlace = memory.allocate(4 * columns);
  memory.shorts(wholes, matrix.wholes.length).set(matrix.wholes);
  memory.floats32(scales, columns).set(matrix.scales);
  memory.floats32(biasPlace, columns).set(bias);
  const longestBlock = LARGEST_SUM / longestBlockOf(matrix);
  return { inner, columns, wholes, scales, bias: biasPlace, longestBlock };
}

/** Room for products of so many rows of at most so many numbers. */
export function allocateProducts(
  memory: EncoderMemory,
  rows: number,
  widest: number,
): ProductPlaces {
  const together = rows + ROWS_TOGETHER;
  return {
    wholes: memory.allocate(2 * together * widest),
    scales: memory.allocate(4 * together),
    input: memory.allocate(4 * together * widest),
    result: memory.allocate(4 * together * widest),
  };
}

/** result = max(floor, input · matrix + bias) */
export function multiplyRows(
  { run }: EncoderMemory,
  matrix: StoredMatrix,
  at: ProductPlaces,
  { rows, floor = -Infinity }: { rows: number; floor?: number },
): void {
  const { inner, columns, wholes, scales, bias, longestBlock } = matrix;
  run.roundRows(at.input, at.wholes, at.scales, rows, inner, longestBlock);
  // rows beyond the last are multiplied too, and looked at by nobody
  const together = Math.ceil(rows / ROWS_TOGETHER) * ROWS_TOGETHER;
  run.multiply(
    together,
    at.wholes,
    at.scales,
    inner,
    wholes,
    scales,
    bias,
    columns,
    at.result,
    floor,
  );
}

/** The greatest length of a block of whole numbers of a column. */
function longestBlockOf({ inner, columns, wholes }: PackedMatrix): number {
  const squares = new Float64Array((inner / BLOCK) * columns);
  for (let at = 0; at < wholes.length; at++) {
    const panel = Math.floor(at / (8 * inner));
    const within = at % (8 * inner);
    const column = 8 * panel + ((within >> 1) & 7);
    const block = Math.floor(within / (8 * BLOCK));
    squares[block * columns + column]! += wholes[at]! ** 2;
  }
  return Math.sqrt(squares.reduce((most, one) => Math.max(most, one), 1));
}
